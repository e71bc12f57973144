package dev.verbale.journal;

import dev.verbale.event.Event;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.JournalOpened;
import dev.verbale.journal.line.EventEncoder;
import dev.verbale.journal.line.LineBuffer;
import dev.verbale.journal.line.RepeatedTexts;
import dev.verbale.json.TextFilter;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * Appends events to a journal file. When {@link #append} has returned, the event is with the operating system: killing
 * the JVM then loses nothing of it.
 *
 * <p>An event is encoded outside the lock into its thread's own buffer, and written with one call inside it. No queue,
 * no thread, no memory that grows. There is no {@code close}: a shutdown hook may still record, and the file is the
 * process's until its end.
 *
 * <p>Safe from any thread; lines are in the order in which they were written. An interrupt neither stops a write nor
 * is swallowed. A stack overflow at whatever call costs its own line at the most: see {@link AppendLock}.
 *
 * <p>Every {@value #LINES_A_SUM} lines, and behind the last one, it writes what they add up to: a journal is read weeks later, by when
 * a line may have been changed or lost.
 *
 * @since 0.2.0
 */
public final class JournalWriter {

    private static final int LINES_A_SUM = 1_000;

    private final ThreadLocal<EventEncoder> encoders = new ThreadLocal<>() {
        @Override
        protected EventEncoder initialValue() {
            return new EventEncoder(filter, repeated);
        }
    };
    private final RepeatedTexts repeated = new RepeatedTexts();
    private final AppendLock lock = new AppendLock();
    private final Path file;
    private final OutputStream out;
    private final TextFilter filter;
    private final LineSum sum = new LineSum(); // this and the next three only with the lock
    private int unsummed;
    private boolean torn;
    private long written;

    private JournalWriter(Path file, OutputStream out, TextFilter filter) {
        this.file = file;
        this.out = out;
        this.filter = filter;
    }

    /**
     * Creates {@code file} and writes its first line.
     *
     * @param filter what every text of every event passes through before it is written
     * @throws java.nio.file.FileAlreadyExistsException where there is such a file: a journal has one writer
     * @throws IOException where it cannot be created or written
     */
    public static JournalWriter open(Path file, JournalOpened first, TextFilter filter) throws IOException {
        Files.createFile(file);
        // A FileChannel closes itself for everyone when one writing thread is interrupted; a FileOutputStream does not.
        OutputStream out = file.getFileSystem() == FileSystems.getDefault()
                ? new FileOutputStream(file.toFile(), true)
                : Files.newOutputStream(file, StandardOpenOption.APPEND);
        var writer = new JournalWriter(file, out, filter);
        writer.append(first);
        return writer;
    }

    /**
     * Writes one line.
     *
     * @throws IOException where the line is not, or not wholly, in the file; later lines are not harmed by it
     */
    public void append(Event event) throws IOException {
        EventEncoder encoder = encoders.get();
        LineBuffer line = encoder.encode(event);
        Thread me = Thread.currentThread();
        try {
            if (!lock.acquired(me, AppendLock.limitNanos()))
                throw new IOException("another thread has been writing for seconds: the disk does not answer");
            if (torn) {
                sum.unknown();
                out.write('\n'); // or this line would be glued to the part that a full disk left of an earlier one
                torn = false;
            }
            torn = true;
            out.write(line.bytes(), 0, line.size());
            sum.add(line.bytes(), 0, line.size());
            torn = false;
            encoder.written();
            written++;
            if (++unsummed >= LINES_A_SUM || event instanceof JournalEnded) writeSum(encoder, event.at());
        } finally {
            if (lock.owner == me) lock.owner = null;
        }
    }

    /** Where there is no room for it, the next line tries again, and then nobody knows the sum. */
    private void writeSum(EventEncoder encoder, long at) {
        LineBuffer line = encoder.encode(sum.at(at));
        torn = true;
        try {
            out.write(line.bytes(), 0, line.size());
        } catch (IOException noRoom) {
            return; // the event itself is in the file
        }
        sum.reset();
        sum.add(line.bytes(), 0, line.size());
        unsummed = 0;
        torn = false;
    }

    /** Whether its file is where it was made. Somebody may delete a run while it is recorded, and writing goes on unseen. */
    public boolean isThere() {
        return file.getFileSystem() == FileSystems.getDefault() ? file.toFile().exists() : Files.exists(file);
    }

    /** How many events it has written, its first line included. Exact once nobody writes any more. */
    public long written() {
        Thread me = Thread.currentThread();
        try {
            lock.acquired(me, AppendLock.limitNanos());
            return written;
        } finally {
            if (lock.owner == me) lock.owner = null;
        }
    }

    /** Asks the operating system to bring the file to the disk. Costs up to milliseconds: once, at the end. */
    public void sync() throws IOException {
        out.flush();
        if (out instanceof FileOutputStream file) file.getFD().sync();
    }
}
