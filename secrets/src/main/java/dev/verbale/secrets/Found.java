package dev.verbale.secrets;

import java.util.ArrayList;
import java.util.List;

/** Where secrets stand in a text, in its order, and what takes the place of each. */
final class Found {

    /**
     * @param end of the value; the end of the text where it is {@code open}
     * @param open whether its end was not found, so that it may go on in what follows
     * @param rest how the rest of it is passed over in a text that comes in pieces
     */
    record Span(int start, int end, String replacement, boolean open, Rest rest) {}

    private final List<Span> spans = new ArrayList<>();
    private int end;

    /** Where the last one ended: nothing is looked for before that. */
    int end() {
        return end;
    }

    boolean isEmpty() {
        return spans.isEmpty();
    }

    List<Span> spans() {
        return spans;
    }

    void add(int from, int to, String replacement) {
        put(new Span(from, to, replacement, false, Rest.NONE));
    }

    /** Its end was looked for up to {@code to} and not found. */
    void addOpen(int from, int to, String replacement, Rest rest) {
        put(new Span(from, to, replacement, true, rest));
    }

    void put(Span span) {
        if (span.start() < end || span.end() <= span.start()) return; // a part of the one before
        spans.add(span);
        end = span.end();
    }

    String applied(String text) {
        return applied(text, text.length());
    }

    /** The first {@code length} characters, and whole the one that goes over their end. */
    String applied(String text, int length) {
        var masked = new StringBuilder(length);
        int done = 0;
        for (Span span : spans) {
            if (span.start() >= length) break;
            masked.append(text, done, span.start()).append(span.replacement());
            done = span.end();
        }
        return done < length ? masked.append(text, done, length).toString() : masked.toString();
    }
}
