package dev.verbale.okhttp;

import dev.verbale.BoundedBuffer;
import java.io.OutputStream;

/** Bytes on their way into a {@link BoundedBuffer}. */
final class CapturedBytes extends OutputStream {

    private final BoundedBuffer captured;

    CapturedBytes(BoundedBuffer captured) {
        this.captured = captured;
    }

    @Override
    public void write(int one) {
        write(new byte[] {(byte) one}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int from, int length) {
        captured.add(bytes, from, length);
    }
}
