package dev.verbale.report;

import java.io.BufferedOutputStream;
import java.io.Closeable;
import java.io.EOFException;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/**
 * What the page says of tests, in a file beside it until all tests are known and have their order. So a test is let go as soon as it was
 * read, and the page of a large run needs no heap of its size.
 *
 * <p>Written by many threads, then read by many.
 */
final class TestDrafts implements Closeable {

    private static final int BUFFER = 1 << 20;

    private final Path file;
    private final OutputStream out;
    private final FileChannel in;
    private long length;

    /** @param file made here, and deleted when this is closed */
    TestDrafts(Path file) throws IOException {
        this.file = file;
        this.out = new BufferedOutputStream(Files.newOutputStream(file, StandardOpenOption.CREATE_NEW), BUFFER);
        try {
            this.in = FileChannel.open(file, StandardOpenOption.READ);
        } catch (IOException unreadable) {
            out.close();
            throw unreadable;
        }
    }

    /**
     * Where it is.
     *
     * @param from the index of its first byte
     * @param test how many bytes are what happened in it, from there
     * @param exchanges how many bytes are its lines in the list of exchanges, behind that
     * @param lines how many lines these are
     */
    record Draft(long from, int test, int exchanges, int lines) {
        /** Of what has none. */
        static final Draft NONE = new Draft(0, 0, 0, 0);
    }

    synchronized Draft add(byte[] test, byte[] exchanges, int lines) throws IOException {
        out.write(test);
        out.write(exchanges);
        var draft = new Draft(length, test.length, exchanges.length, lines);
        length += test.length + exchanges.length;
        return draft;
    }

    /** All are there, and can be read. */
    void written() throws IOException {
        out.flush();
    }

    byte[] test(Draft draft) throws IOException {
        return bytes(draft.from(), draft.test());
    }

    byte[] exchanges(Draft draft) throws IOException {
        return bytes(draft.from() + draft.test(), draft.exchanges());
    }

    private byte[] bytes(long from, int count) throws IOException {
        var bytes = ByteBuffer.allocate(count);
        while (bytes.hasRemaining())
            if (in.read(bytes, from + bytes.position()) < 0) throw new EOFException(file + " was cut meanwhile");
        return bytes.array();
    }

    @Override
    public void close() throws IOException {
        try (out;
                in) {
            // closed, whichever of them fails
        } finally {
            Files.deleteIfExists(file);
        }
    }
}
