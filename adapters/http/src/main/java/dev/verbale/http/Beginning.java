package dev.verbale.http;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;

/** The beginning of a body that passes by, and how much of it there was. For one thread at a time. */
final class Beginning {

    private static final int MOST = 1 << 20;

    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    private long size;

    /** Reads {@code part} and leaves it as it was. */
    void add(ByteBuffer part) {
        size += part.remaining();
        int wanted = Math.min(part.remaining(), MOST - bytes.size());
        if (wanted <= 0) return;
        var copy = new byte[wanted];
        part.duplicate().get(copy);
        bytes.write(copy, 0, wanted);
    }

    byte[] bytes() {
        return bytes.toByteArray();
    }

    long size() {
        return size;
    }
}
