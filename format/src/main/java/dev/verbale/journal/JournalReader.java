package dev.verbale.journal;

import dev.verbale.event.Event;
import dev.verbale.event.JournalOpened;
import dev.verbale.journal.line.EventDecoder;
import dev.verbale.journal.line.LineBuffer;
import dev.verbale.journal.line.MalformedLine;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;

/**
 * Reads a journal file, finished or not, in its order. No line is dropped in silence: what cannot be read is reported to the
 * listener with its line number and the reason, and the rest is still read.
 *
 * @since 0.2.0
 */
public final class JournalReader {

    /** Hears what a journal holds, on the thread that reads. Lines are counted from 1. */
    public interface Listener {
        /** Line {@code line} is {@code event}. */
        void event(Event event, int line);

        /** Line {@code line} could not be read; {@code why} is one sentence that does not name the line. */
        void unread(int line, String why);

        /**
         * Line {@code line} was read, and {@code what} in it is of a later version: it was passed over, or its word was kept.
         *
         * @param what such as {@code the field log.mood}
         */
        void unknown(int line, String what);

        /** Line {@code line} was read, and something about it is odd. */
        void odd(int line, String what);
    }

    /** No recorder writes such a line. One that is longer is passed over: reading it would take all memory there is. */
    static final int LONGEST_LINE = 64 << 20;

    private final Listener listener;
    private boolean opened;

    private JournalReader(Listener listener) {
        this.listener = listener;
    }

    /**
     * Reads {@code file} to its end.
     *
     * @throws IOException where the file cannot be opened or read, or is no regular file: a link leads elsewhere, and a pipe
     *     may never end
     */
    public static void read(Path file, Listener listener) throws IOException {
        try (InputStream in = PlainFile.open(file)) {
            new JournalReader(listener).lines(in);
        }
    }

    private void lines(InputStream in) throws IOException {
        var line = new LineBuffer();
        var chunk = new byte[1 << 16];
        int number = 1;
        boolean tooLong = false;
        for (int filled = in.read(chunk); filled >= 0; filled = in.read(chunk)) {
            int from = 0;
            for (int i = 0; i < filled; i++) {
                if (chunk[i] != '\n') continue;
                if (!tooLong) {
                    line.write(chunk, from, i - from);
                    line(line, number, true);
                }
                number++;
                tooLong = false;
                line.reset();
                from = i + 1;
            }
            if (tooLong) continue;
            line.write(chunk, from, filled - from);
            tooLong = line.size() > LONGEST_LINE;
            if (!tooLong) continue;
            listener.unread(number, "longer than " + (LONGEST_LINE >> 20) + " MB, which no recorder writes");
            line = new LineBuffer();
        }
        if (line.size() > 0) line(line, number, false);
        else if (number == 1 && !tooLong) listener.unread(1, "the journal is empty");
    }

    private void line(LineBuffer bytes, int number, boolean ended) {
        if (bytes.size() == 0) return; // a line that a full disk tore is closed by an extra newline
        Event event;
        try {
            EventDecoder.Decoded decoded = EventDecoder.decode(bytes.bytes(), bytes.size());
            event = decoded.event();
            if (!decoded.repeated().isEmpty())
                listener.odd(number, "has the same field twice, of which the last one counts: " + decoded.repeated());
            for (String news : decoded.unknown()) listener.unknown(number, news);
        } catch (MalformedLine malformed) {
            String why = String.valueOf(malformed.getMessage());
            listener.unread(number, ended ? why : "torn: the journal ends in the middle of a line");
            return;
        }
        if (!opened && !(event instanceof JournalOpened))
            listener.odd(number, "the journal does not begin with 'journal-opened'; its times are unknown");
        opened = true;
        listener.event(event, number);
    }
}
