package dev.verbale.okhttp;

import dev.verbale.BoundedBuffer;
import dev.verbale.Exchange;
import java.io.IOException;
import okhttp3.MediaType;
import okhttp3.ResponseBody;
import okio.Buffer;
import okio.BufferedSource;
import okio.ForwardingSource;
import okio.Okio;
import org.jspecify.annotations.Nullable;

/** A response's body that the test reads, captured; the exchange ends with it. */
final class CapturedResponseBody extends ResponseBody {

    private final ResponseBody body;
    private final BufferedSource source;

    CapturedResponseBody(ResponseBody body, Exchange exchange) {
        this.body = body;
        BoundedBuffer captured = exchange.buffer();
        exchange.responseBody(
                captured, body.contentType() == null ? "" : body.contentType().toString());
        var out = new CapturedBytes(captured);
        this.source = Okio.buffer(new ForwardingSource(body.source()) {
            @Override
            public long read(Buffer sink, long limit) throws IOException {
                long read;
                try {
                    read = super.read(sink, limit);
                } catch (IOException broken) {
                    exchange.failed(broken);
                    throw broken;
                }
                if (read < 0) exchange.ended();
                else sink.copyTo(out, sink.size() - read, read);
                return read;
            }

            @Override
            public void close() throws IOException {
                try {
                    super.close();
                } finally {
                    exchange.ended();
                }
            }
        });
    }

    @Override
    public @Nullable MediaType contentType() {
        return body.contentType();
    }

    @Override
    public long contentLength() {
        return body.contentLength();
    }

    @Override
    public BufferedSource source() {
        return source;
    }
}
