package dev.verbale;

import java.io.ByteArrayOutputStream;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * The beginning of a body that passes by, and how much of it there was. From any thread.
 *
 * <pre>{@code
 * Exchange exchange = Verbale.exchange("ASK", "tcp://gate:7070");
 * BoundedBuffer sent = exchange.buffer();
 * OutputStream out = sent.through(gate.out()); // what the test writes there is kept here too
 * exchange.requestBody(sent, "text/plain");
 * }</pre>
 *
 * @since 0.2.0
 */
public final class BoundedBuffer {

    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    private final int limit;
    private long size;

    /** An empty one that keeps {@code most} bytes. */
    public BoundedBuffer(int limit) {
        this.limit = Math.max(0, limit);
    }

    /** Reads {@code part} and leaves it as it was. */
    public synchronized void add(ByteBuffer part) {
        if (part == null)
            return; // whoever hands this on is in the middle of a request, and must not fail because of us
        size += part.remaining();
        int wanted = Math.min(part.remaining(), limit - bytes.size());
        if (wanted <= 0) return;
        if (part.hasArray()) {
            bytes.write(part.array(), part.arrayOffset() + part.position(), wanted);
            return;
        }
        var copy = new byte[wanted];
        part.duplicate().get(copy);
        bytes.write(copy, 0, wanted);
    }

    /** Takes {@code length} bytes of {@code part} from {@code from} on. */
    public void add(byte[] part, int from, int length) {
        if (part == null || from < 0 || length < 0 || length > part.length - from) return;
        add(ByteBuffer.wrap(part, from, length));
    }

    /**
     * Reads a file that is sent elsewhere: its beginning, and how long it is.
     *
     * @throws IOException where it cannot be read
     */
    public synchronized void read(Path file) throws IOException {
        if (file == null) throw new IOException("there is no file to read");
        try (InputStream in = Files.newInputStream(file)) {
            bytes.writeBytes(in.readNBytes(limit - bytes.size()));
        }
        size += Files.size(file);
    }

    /** A stream that hands everything on to {@code out}, and keeps the beginning of it here. */
    public OutputStream through(OutputStream out) {
        return new FilterOutputStream(out) {
            @Override
            public void write(int one) throws IOException {
                write(new byte[] {(byte) one}, 0, 1);
            }

            @Override
            public void write(byte[] part, int from, int length) throws IOException {
                add(part, from, length);
                out.write(part, from, length);
            }
        };
    }

    /** What was kept so far. */
    public synchronized byte[] bytes() {
        return bytes.toByteArray();
    }

    /** Whether it keeps nothing of what comes now. */
    public synchronized boolean isFull() {
        return bytes.size() >= limit;
    }

    /** How much passed by so far, kept or not. */
    public synchronized long size() {
        return size;
    }
}
