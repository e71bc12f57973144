package dev.verbale.httpclient5;

import dev.verbale.Exchange;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.impl.io.ChunkedInputStream;
import org.apache.hc.core5.http.io.entity.HttpEntityWrapper;
import org.jspecify.annotations.Nullable;

/** A response's body that the test reads, captured; the exchange ends with it. */
final class CapturedResponseEntity extends HttpEntityWrapper {

    private final Exchange exchange;
    private @Nullable InputStream captured;

    CapturedResponseEntity(HttpEntity body, Exchange exchange) {
        super(body);
        this.exchange = exchange;
    }

    @Override
    public synchronized InputStream getContent() throws IOException {
        InputStream stream = captured;
        if (stream == null) {
            InputStream bare = super.getContent();
            stream = exchange.responseBody(bare, getContentType() == null ? "" : getContentType());
            // such a stream reads on when it is closed, so that its connection can be used again
            if (drainsWhenClosed()) stream = new DrainedStream(stream);
            if (bare instanceof ChunkedInputStream chunks) stream = new CapturedChunks(chunks, stream);
            captured = stream;
        }
        return stream;
    }

    @Override
    public void writeTo(OutputStream out) throws IOException {
        try (InputStream in = getContent()) {
            in.transferTo(out);
        }
    }

    @Override
    public void close() throws IOException {
        try {
            if (drainsWhenClosed()) getContent().close(); // what nobody read is captured on the way
        } finally {
            try {
                super.close();
            } finally {
                exchange.ended();
            }
        }
    }

    private boolean drainsWhenClosed() {
        return getContentLength() >= 0 || isChunked();
    }
}
