package dev.verbale.journal;

import dev.verbale.event.Event;
import dev.verbale.event.JournalOpened;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Reads a journal file, finished or not, in its order. No line is dropped in silence: what cannot be read is told to the
 * listener with its line number and the reason, and the rest is still read.
 */
public final class JournalReader {

    /** Hears what a journal holds, on the thread that reads. Lines are counted from 1. */
    public interface Listener {
        /** Line {@code line} is {@code event}. */
        void event(Event event, int line);

        /** Line {@code line} could not be read; {@code why} is one sentence without the place. */
        void unread(int line, String why);
    }

    private final Listener listener;
    private boolean opened;

    private JournalReader(Listener listener) {
        this.listener = listener;
    }

    /**
     * Reads {@code file} to its end.
     *
     * @throws IOException where the file cannot be opened or read
     */
    public static void read(Path file, Listener listener) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            new JournalReader(listener).lines(in);
        }
    }

    private void lines(InputStream in) throws IOException {
        var line = new LineBuffer();
        var chunk = new byte[1 << 16];
        int number = 1;
        for (int filled = in.read(chunk); filled >= 0; filled = in.read(chunk)) {
            int from = 0;
            for (int i = 0; i < filled; i++) {
                if (chunk[i] != '\n') continue;
                line.write(chunk, from, i - from);
                line(line, number++, true);
                line.reset();
                from = i + 1;
            }
            line.write(chunk, from, filled - from);
        }
        if (line.size() > 0) line(line, number, false);
        else if (number == 1) listener.unread(1, "the journal is empty");
    }

    private void line(LineBuffer bytes, int number, boolean ended) {
        if (bytes.size() == 0) return; // a line that a full disk tore is closed by an extra newline
        Event event;
        try {
            event = EventDecoder.decode(bytes.bytes(), bytes.size());
        } catch (MalformedLine malformed) {
            String why = String.valueOf(malformed.getMessage());
            listener.unread(number, ended ? why : "torn: the journal ends in the middle of a line");
            return;
        }
        if (!opened && !(event instanceof JournalOpened))
            listener.unread(number, "the journal does not begin with 'journal-opened'; its times are unknown");
        opened = true;
        listener.event(event, number);
    }
}
