package dev.verbale.hub;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** So many bytes of a stream that may go on meanwhile. */
final class FirstBytes extends FilterInputStream {

    private long left;

    FirstBytes(InputStream in, long count) {
        super(in);
        left = count;
    }

    @Override
    public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] buffer, int from, int length) throws IOException {
        if (left == 0) return -1;
        int read = super.read(buffer, from, (int) Math.min(length, left));
        if (read > 0) left -= read;
        return read;
    }
}
