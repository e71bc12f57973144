package dev.verbale.journal;

import dev.verbale.event.Event;
import dev.verbale.event.JournalOpened;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.concurrent.locks.ReentrantLock;

/**
 * Appends events to a journal file. When {@link #append} has returned, the event is with the operating system: killing
 * the JVM then loses nothing of it.
 *
 * <p>An event is encoded outside the lock into its thread's own buffer, and written with one call inside it. No queue,
 * no thread, no memory that grows. There is no {@code close}: a shutdown hook may still record, and the file is the
 * process's until its end.
 *
 * <p>Safe from any thread; lines are in the order in which they were written. An interrupt neither stops a write nor
 * is swallowed.
 */
public final class JournalWriter {

    private final ThreadLocal<EventEncoder> encoders = ThreadLocal.withInitial(this::newEncoder);
    // Not synchronized: in JDK 21 to 23 a virtual thread that blocks in a monitor holds its carrier.
    private final ReentrantLock lock = new ReentrantLock();
    private final OutputStream out;
    private final TextFilter filter;
    private boolean torn;

    private JournalWriter(OutputStream out, TextFilter filter) {
        this.out = out;
        this.filter = filter;
    }

    private EventEncoder newEncoder() {
        return new EventEncoder(filter);
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
        var writer = new JournalWriter(out, filter);
        writer.append(first);
        return writer;
    }

    /**
     * Writes one line.
     *
     * @throws IOException where the line is not, or not wholly, in the file; later lines are not harmed by it
     */
    public void append(Event event) throws IOException {
        LineBuffer line = encoders.get().encode(event);
        lock.lock();
        try {
            if (torn) {
                out.write('\n'); // or this line would be glued to the part that a full disk left of an earlier one
                torn = false;
            }
            torn = true;
            out.write(line.bytes(), 0, line.size());
            torn = false;
        } finally {
            lock.unlock();
        }
    }

    /** Does all that {@link #append} does but writing, so that the first real event finds everything loaded. */
    public void rehearse(Event event) {
        encoders.get().encode(event);
    }

    /** Asks the operating system to bring the file to the disk. Costs up to milliseconds: once, at the end. */
    public void sync() throws IOException {
        out.flush();
        if (out instanceof FileOutputStream file) file.getFD().sync();
    }
}
