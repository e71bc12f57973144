package dev.verbale.journal.line;

import java.io.ByteArrayOutputStream;

/** A growing line whose bytes can be used without a copy. */
public final class LineBuffer extends ByteArrayOutputStream {

    public LineBuffer() {
        super(1 << 11);
    }

    /** The first {@link #size()} bytes are the line. */
    public byte[] bytes() {
        return buf;
    }

    int capacity() {
        return buf.length;
    }
}
