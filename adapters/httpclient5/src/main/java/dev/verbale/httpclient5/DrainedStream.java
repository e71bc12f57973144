package dev.verbale.httpclient5;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.SocketException;

/** Reads to the end before it closes, as the stream underneath would by itself, unseen. */
final class DrainedStream extends FilterInputStream {

    private static final int PIECE = 8_192;

    private boolean over;

    DrainedStream(InputStream captured) {
        super(captured);
    }

    @Override
    public int read() throws IOException {
        var one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
        int read;
        try {
            read = in.read(into, from, length);
        } catch (IOException broken) {
            over = true;
            throw broken;
        }
        over = read < 0;
        return read;
    }

    @Override
    public void close() throws IOException {
        try {
            var piece = new byte[PIECE];
            while (!over) read(piece, 0, piece.length);
        } catch (SocketException closedByTheTest) { // which the stream underneath is silent about too
            return;
        } finally {
            over = true;
            super.close();
        }
    }
}
