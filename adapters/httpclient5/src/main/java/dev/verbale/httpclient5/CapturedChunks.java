package dev.verbale.httpclient5;

import java.io.IOException;
import java.io.InputStream;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.impl.io.ChunkedInputStream;
import org.apache.hc.core5.http.impl.io.SessionInputBufferImpl;

/**
 * A body in chunks that is captured. It is of the class of the client's own such stream, since the client asks that class alone for
 * the trailers behind the body.
 */
final class CapturedChunks extends ChunkedInputStream {

    private final ChunkedInputStream chunks;
    private final InputStream captured;

    /** @param captured reads {@code chunks} */
    CapturedChunks(ChunkedInputStream chunks, InputStream captured) {
        super(new SessionInputBufferImpl(1), chunks);
        this.chunks = chunks;
        this.captured = captured;
    }

    @Override
    public int available() throws IOException {
        return captured.available();
    }

    @Override
    public int read() throws IOException {
        return captured.read();
    }

    @Override
    public int read(byte[] into, int from, int length) throws IOException {
        return captured.read(into, from, length);
    }

    @Override
    public void close() throws IOException {
        captured.close();
    }

    @Override
    public Header[] getFooters() {
        return chunks.getFooters();
    }
}
