package dev.verbale.journal;

import java.io.ByteArrayOutputStream;

/** A growing line whose bytes can be used without a copy. */
final class LineBuffer extends ByteArrayOutputStream {

    LineBuffer() {
        super(1 << 11);
    }

    /** The first {@link #size()} bytes are the line. */
    byte[] bytes() {
        return buf;
    }

    int capacity() {
        return buf.length;
    }
}
