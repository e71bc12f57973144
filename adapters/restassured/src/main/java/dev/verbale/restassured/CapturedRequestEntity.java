package dev.verbale.restassured;

import dev.verbale.BoundedBuffer;
import dev.verbale.Exchange;
import java.io.IOException;
import java.io.OutputStream;
import org.apache.http.HttpEntity;
import org.apache.http.entity.HttpEntityWrapper;

/** Hands a request's body on, and keeps its beginning as it is sent. */
final class CapturedRequestEntity extends HttpEntityWrapper {

    private final Exchange exchange;

    CapturedRequestEntity(HttpEntity body, Exchange exchange) {
        super(body);
        this.exchange = exchange;
    }

    @Override
    public void writeTo(OutputStream out) throws IOException {
        BoundedBuffer captured = exchange.buffer(); // a new one where it is sent again
        exchange.requestBody(
                captured, getContentType() == null ? "" : getContentType().getValue());
        super.writeTo(captured.through(out));
    }
}
