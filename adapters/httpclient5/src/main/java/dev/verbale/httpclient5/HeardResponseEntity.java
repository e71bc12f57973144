package dev.verbale.httpclient5;

import dev.verbale.recorder.Exchange;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.io.entity.HttpEntityWrapper;
import org.jspecify.annotations.Nullable;

/** An answer's body that the test reads, heard; the exchange ends with it. */
final class HeardResponseEntity extends HttpEntityWrapper {

    private final Exchange exchange;
    private @Nullable InputStream heard;

    HeardResponseEntity(HttpEntity body, Exchange exchange) {
        super(body);
        this.exchange = exchange;
    }

    @Override
    public synchronized InputStream getContent() throws IOException {
        InputStream stream = heard;
        if (stream == null) {
            stream = exchange.responseBody(super.getContent(), getContentType() == null ? "" : getContentType());
            heard = stream;
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
            super.close();
        } finally {
            exchange.ended(); // where nobody read it
        }
    }
}
