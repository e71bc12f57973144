package dev.verbale.httpclient5;

import dev.verbale.BoundedBuffer;
import dev.verbale.Exchange;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.Set;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.nio.AsyncEntityProducer;
import org.apache.hc.core5.http.nio.DataStreamChannel;

/** Hands a request's body on, and keeps its beginning. */
final class CapturedProducer implements AsyncEntityProducer {

    private final AsyncEntityProducer body;
    private final BoundedBuffer captured;

    CapturedProducer(AsyncEntityProducer body, Exchange exchange) {
        this.body = body;
        this.captured = exchange.buffer();
        exchange.requestBody(captured, body.getContentType() == null ? "" : body.getContentType());
    }

    @Override
    public void produce(DataStreamChannel channel) throws IOException {
        body.produce(new DataStreamChannel() {
            @Override
            public void requestOutput() {
                channel.requestOutput();
            }

            /** The channel takes as much as it can, and says how much that was. */
            @Override
            public int write(ByteBuffer part) throws IOException {
                ByteBuffer offered = part.duplicate();
                int written = channel.write(part);
                offered.limit(offered.position() + Math.max(0, written));
                captured.add(offered);
                return written;
            }

            @Override
            public void endStream() throws IOException {
                channel.endStream();
            }

            @Override
            public void endStream(List<? extends Header> trailers) throws IOException {
                channel.endStream(trailers);
            }
        });
    }

    @Override
    public int available() {
        return body.available();
    }

    @Override
    public boolean isRepeatable() {
        return body.isRepeatable();
    }

    @Override
    public void failed(Exception failure) {
        body.failed(failure);
    }

    @Override
    public long getContentLength() {
        return body.getContentLength();
    }

    @Override
    public String getContentType() {
        return body.getContentType();
    }

    @Override
    public String getContentEncoding() {
        return body.getContentEncoding();
    }

    @Override
    public boolean isChunked() {
        return body.isChunked();
    }

    @Override
    public Set<String> getTrailerNames() {
        return body.getTrailerNames();
    }

    @Override
    public void releaseResources() {
        body.releaseResources();
    }
}
