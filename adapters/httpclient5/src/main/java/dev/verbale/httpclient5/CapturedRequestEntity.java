package dev.verbale.httpclient5;

import dev.verbale.BoundedBuffer;
import dev.verbale.Exchange;
import java.io.IOException;
import java.io.OutputStream;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.io.entity.HttpEntityWrapper;

/** Hands a request's body on, and keeps its beginning. */
final class CapturedRequestEntity extends HttpEntityWrapper {

    private final Exchange exchange;

    CapturedRequestEntity(HttpEntity body, Exchange exchange) {
        super(body);
        this.exchange = exchange;
    }

    @Override
    public void writeTo(OutputStream out) throws IOException {
        BoundedBuffer captured = exchange.buffer();
        exchange.requestBody(captured, getContentType() == null ? "" : getContentType());
        super.writeTo(captured.through(out));
    }
}
