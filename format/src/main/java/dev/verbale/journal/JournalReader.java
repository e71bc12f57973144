package dev.verbale.journal;

import dev.verbale.event.ChecksumWritten;
import dev.verbale.event.Event;
import dev.verbale.event.JournalOpened;
import dev.verbale.journal.line.EventDecoder;
import dev.verbale.journal.line.KnownPieces;
import dev.verbale.journal.line.LineBlock;
import dev.verbale.journal.line.MalformedLine;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Reads a journal file, finished or not, in its order. No line is dropped in silence: what cannot be read is reported to the
 * listener with its line number and the reason, and the rest is still read.
 *
 * @since 0.2.0
 */
public final class JournalReader {

    /**
     * Hears what a journal holds, on the thread that reads. Lines are counted from 1. A {@link ChecksumWritten} is compared by the
     * reader and not handed on: where it does not fit, that is odd.
     */
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
    private final KnownPieces known = new KnownPieces();
    private final LineSum sum = new LineSum();
    private int summedFrom = 1; // the line
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

    /**
     * What {@code file} begins with.
     *
     * @return null where it does not begin with what recorders write first
     * @throws IOException where the file cannot be opened or read, or is no regular file
     */
    public static @Nullable JournalOpened opened(Path file) throws IOException {
        byte[] first;
        try (InputStream in = PlainFile.open(file)) {
            first = in.readNBytes(FIRST_SIZE);
        }
        int end = 0;
        while (end < first.length && first[end] != '\n') end++;
        if (end == first.length) return null;
        var block = new LineBlock(first, end + 1, new KnownPieces());
        try {
            return block.decode(0, end).event() instanceof JournalOpened opened ? opened : null;
        } catch (MalformedLine malformed) {
            return null;
        } finally {
            block.close();
        }
    }

    private static final int FIRST_SIZE = 1 << 16;

    private byte[] buffer = new byte[FIRST_SIZE];
    private int number = 1; // of the line that begins the buffer

    private void lines(InputStream in) throws IOException {
        int filled = 0;
        boolean tooLong = false;
        for (int read = in.read(buffer, 0, buffer.length);
                read >= 0;
                read = in.read(buffer, filled, buffer.length - filled)) {
            int behind = filled + read;
            int from = tooLong ? behindNewline(filled, behind) : 0;
            if (from < 0) continue; // still the same line
            if (tooLong) number++;
            tooLong = false;
            int end = behindLastNewline(Math.max(from, filled), behind);
            if (end > from) whole(from, end);
            int left = Math.max(from, end);
            filled = behind - left;
            System.arraycopy(buffer, left, buffer, 0, filled);
            if (filled < buffer.length) continue;
            if (filled >= LONGEST_LINE) {
                listener.unread(number, "longer than " + (LONGEST_LINE >> 20) + " MB, which no recorder writes");
                tooLong = true;
                sum.unknown();
                filled = 0;
                buffer = new byte[FIRST_SIZE];
            } else {
                buffer = Arrays.copyOf(buffer, buffer.length * 2);
            }
        }
        if (filled > 0) torn(filled);
        else if (number == 1 && !tooLong) listener.unread(1, "the journal is empty");
    }

    /** The index behind the first one from index {@code from}, or -1. */
    private int behindNewline(int from, int to) {
        for (int i = from; i < to; i++) if (buffer[i] == '\n') return i + 1;
        return -1;
    }

    /** The index behind the last one from index {@code from}, or 0. */
    private int behindLastNewline(int from, int to) {
        for (int i = to; i > from; i--) if (buffer[i - 1] == '\n') return i;
        return 0;
    }

    private void whole(int from, int end) {
        var block = new LineBlock(buffer, end, known);
        int line = from;
        int unsummed = from;
        for (int i = from; i < end; i++) {
            if (buffer[i] != '\n') continue;
            // a line that a full disk tore is closed by an extra newline
            if (i > line && line(block, line, i, true) instanceof ChecksumWritten written) {
                sum.add(buffer, unsummed, line - unsummed);
                compare(written);
                unsummed = line;
            }
            number++;
            line = i + 1;
        }
        sum.add(buffer, unsummed, end - unsummed);
        block.close();
    }

    private void compare(ChecksumWritten written) {
        if (!sum.fits(written))
            listener.odd(
                    number,
                    "the lines from " + summedFrom
                            + " to here are not as they were written: their checksum does not fit,"
                            + " so something was changed, cut out or put in");
        sum.reset();
        summedFrom = number;
    }

    private void torn(int end) {
        var block = new LineBlock(buffer, end, known);
        line(block, 0, end, false);
        block.close();
    }

    /** Null where there is none. */
    private @Nullable Event line(LineBlock block, int from, int to, boolean ended) {
        Event event;
        try {
            EventDecoder.Decoded decoded = block.decode(from, to);
            event = decoded.event();
            if (!decoded.repeated().isEmpty())
                listener.odd(number, "has the same field twice, of which the last one counts: " + decoded.repeated());
            for (String news : decoded.unknown()) listener.unknown(number, news);
            List<Integer> missing = known.takeMissing();
            if (!missing.isEmpty())
                listener.odd(
                        number, "has a text of which parts are missing, which no line before has: pieces " + missing);
        } catch (MalformedLine malformed) {
            String why = String.valueOf(malformed.getMessage());
            listener.unread(number, ended ? why : "torn: the journal ends in the middle of a line");
            return null;
        }
        if (!opened && !(event instanceof JournalOpened))
            listener.odd(number, "the journal does not begin with 'journal-opened'; its times are unknown");
        opened = true;
        if (!(event instanceof ChecksumWritten)) listener.event(event, number);
        return event;
    }
}
