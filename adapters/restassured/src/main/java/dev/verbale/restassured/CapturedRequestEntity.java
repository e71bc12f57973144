package dev.verbale.restassured;

import dev.verbale.recorder.Beginning;
import dev.verbale.recorder.Exchange;
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
        Beginning captured = exchange.beginning(); // a new one where it is sent again
        exchange.requestBody(
                captured, getContentType() == null ? "" : getContentType().getValue());
        super.writeTo(captured.through(out));
    }
}
