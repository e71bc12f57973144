package dev.verbale.okhttp;

import dev.verbale.BoundedBuffer;
import dev.verbale.Exchange;
import java.io.IOException;
import okhttp3.MediaType;
import okhttp3.RequestBody;
import okio.Buffer;
import okio.BufferedSink;
import okio.ForwardingSink;
import okio.Okio;
import org.jspecify.annotations.Nullable;

/** Hands a request's body on, and keeps its beginning. */
final class CapturedRequestBody extends RequestBody {

    private final RequestBody body;
    private final Exchange exchange;

    CapturedRequestBody(RequestBody body, Exchange exchange) {
        this.body = body;
        this.exchange = exchange;
    }

    @Override
    public @Nullable MediaType contentType() {
        return body.contentType();
    }

    @Override
    public long contentLength() throws IOException {
        return body.contentLength();
    }

    @Override
    public boolean isDuplex() {
        return body.isDuplex();
    }

    @Override
    public boolean isOneShot() {
        return body.isOneShot();
    }

    @Override
    public void writeTo(BufferedSink sink) throws IOException {
        BoundedBuffer captured = exchange.buffer();
        exchange.requestBody(
                captured, body.contentType() == null ? "" : body.contentType().toString());
        var out = new CapturedBytes(captured);
        BufferedSink through = Okio.buffer(new ForwardingSink(sink) {
            @Override
            public void write(Buffer source, long count) throws IOException {
                source.copyTo(out, 0, count);
                super.write(source, count);
            }
        });
        body.writeTo(through);
        through.emit();
    }
}
