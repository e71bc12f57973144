package dev.verbale.secrets;

import java.io.IOException;
import java.io.Reader;
import java.io.Writer;
import org.jspecify.annotations.Nullable;

/**
 * Copies a text of any length and masks its secrets, with constant memory. It is searched in windows that overlap: nothing is
 * written before what may belong to it was seen. Only of a secret that is longer than a window the rest is passed over without
 * being held, up to its end.
 */
public final class RedactingReader {

    /** So much is searched at once, and held at the most twice. */
    private static final int WINDOW = 1 << 19;

    /** What comes within so many characters may still belong to what is before. */
    private static final int AHEAD = 1 << 14;

    /** What is before is looked back at: names before their values, words beside numbers. */
    private static final int BEHIND = 1 << 10;

    private final Redactor redactor;
    private final Reader in;
    private final Writer out;
    private final Search search;
    private final StringBuilder held = new StringBuilder();

    /** How much of {@code held} was written already, and is there to be looked back at. */
    private int done;

    /** Passes over a secret whose beginning was masked; null outside of one. */
    private @Nullable Rest rest;

    private boolean isOver;

    private RedactingReader(Redactor redactor, Reader in, Writer out) {
        this.redactor = redactor;
        this.in = in;
        this.out = out;
        this.search = redactor.search();
    }

    /**
     * Copies all that {@code in} gives.
     *
     * @throws IOException where reading or writing fails
     */
    public static void copy(Redactor redactor, Reader in, Writer out) throws IOException {
        var copying = new RedactingReader(redactor, in, out);
        while (copying.read() || copying.done < copying.held.length()) copying.window();
        out.flush();
    }

    /** Fills the window; whether there was more. */
    private boolean read() throws IOException {
        int before = held.length();
        var piece = new char[1 << 13];
        while (!isOver && held.length() - done < WINDOW) {
            int read = in.read(piece);
            if (read < 0) isOver = true;
            else held.append(piece, 0, read);
        }
        return held.length() > before;
    }

    private void window() throws IOException {
        String text = held.toString();
        if (rest != null) {
            int end = rest.end(text, done);
            if (end < 0) {
                done = text.length();
                forget();
                return;
            }
            rest = null;
            done = end;
        }
        KnownSecrets known = redactor.known();
        Tables before = search.tables();
        int from = done;
        Found found = search.in(text, done, known);
        int ahead = Math.max(AHEAD, known.reach());
        int safe = isOver ? text.length() : Math.max(done, text.length() - ahead);
        if (!isOver && safe == done)
            safe = Math.max(done, text.length() - AHEAD); // a value of a window's length was known
        for (Found.Span span : found.spans()) {
            boolean reaches = span.open() || span.end() > safe;
            if (!isOver && reaches && span.start() > done + AHEAD) {
                safe = Math.min(safe, span.start()); // it is seen whole, or more of it, in the next window
                break;
            }
            out.append(text, done, Math.max(done, Math.min(span.start(), text.length())));
            out.write(span.replacement());
            done = span.end();
            if (!isOver && span.open()) {
                rest = span.rest();
                search.comeBack(before, text, from, done);
                forget();
                return;
            }
            safe = Math.max(safe, done);
        }
        safe = lineStart(text, safe);
        if (safe > done) {
            out.append(text, done, safe);
            done = safe;
        }
        search.comeBack(before, text, from, done);
        forget();
    }

    /** Windows begin with lines where there are any: tables go by them. */
    private int lineStart(String text, int safe) {
        if (safe == text.length()) return safe;
        int line = text.lastIndexOf('\n', safe - 1) + 1;
        return line > done ? line : safe;
    }

    private void forget() {
        int from = Math.max(0, done - BEHIND);
        if (from == 0) return;
        held.delete(0, from);
        done -= from;
    }
}
