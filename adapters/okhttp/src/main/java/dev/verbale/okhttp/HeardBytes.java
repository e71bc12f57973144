package dev.verbale.okhttp;

import dev.verbale.recorder.Beginning;
import java.io.OutputStream;

/** Bytes on their way into a {@link Beginning}. */
final class HeardBytes extends OutputStream {

    private final Beginning heard;

    HeardBytes(Beginning heard) {
        this.heard = heard;
    }

    @Override
    public void write(int one) {
        write(new byte[] {(byte) one}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int from, int length) {
        heard.add(bytes, from, length);
    }
}
