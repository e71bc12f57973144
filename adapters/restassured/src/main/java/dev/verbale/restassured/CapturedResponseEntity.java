package dev.verbale.restassured;

import dev.verbale.BoundedBuffer;
import dev.verbale.spi.AdapterExchange;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import org.apache.http.HttpConnection;
import org.apache.http.HttpEntity;
import org.apache.http.entity.HttpEntityWrapper;
import org.jspecify.annotations.Nullable;

/** Hands a response's body on as the test reads it, before anybody unpacks it. */
final class CapturedResponseEntity extends HttpEntityWrapper {

    private final AdapterExchange exchange;
    private final @Nullable HttpConnection connection;
    private final RestAssuredCall call;
    private @Nullable ReadAheadStream captured;

    CapturedResponseEntity(
            HttpEntity body, AdapterExchange exchange, RestAssuredCall call, @Nullable HttpConnection connection) {
        super(body);
        this.exchange = exchange;
        this.call = call;
        this.connection = connection;
        exchange.onTestEnd(this::readWhatCame);
    }

    @Override
    public InputStream getContent() throws IOException {
        return content();
    }

    private ReadAheadStream content() throws IOException {
        ReadAheadStream stream = captured;
        if (stream == null) {
            stream = stream();
            captured = stream;
            call.respondsWith(stream);
        }
        return stream;
    }

    private ReadAheadStream stream() throws IOException {
        BoundedBuffer beginning = exchange.buffer();
        exchange.responseBody(
                beginning, getContentType() == null ? "" : getContentType().getValue());
        boolean drains = getContentLength() >= 0 || isChunked(); // such a stream reads on when it is closed
        return new ReadAheadStream(wrappedEntity.getContent(), exchange, beginning, drains);
    }

    /** Nobody read it, as of a response whose status was not what the test expected: what has come by now is what it said. */
    private void readWhatCame() {
        try {
            if (connection != null) content().readWhatCame(connection);
        } catch (IOException nothingMore) { // it is the test's, and it is over
            return;
        }
    }

    @Override
    public void writeTo(OutputStream out) throws IOException {
        try (InputStream in = getContent()) {
            in.transferTo(out);
        }
    }
}
