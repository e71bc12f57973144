package dev.verbale.httpclient5;

import dev.verbale.BoundedBuffer;
import dev.verbale.Exchange;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.List;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.HttpException;
import org.apache.hc.core5.http.nio.AsyncDataConsumer;
import org.apache.hc.core5.http.nio.CapacityChannel;
import org.jspecify.annotations.Nullable;

/** Hands a response's body on as it comes, captured; the exchange ends with it. */
final class CapturingConsumer implements AsyncDataConsumer {

    private final AsyncDataConsumer consumer;
    private final Exchange exchange;
    private final BoundedBuffer captured;

    CapturingConsumer(AsyncDataConsumer consumer, Exchange exchange, BoundedBuffer captured) {
        this.consumer = consumer;
        this.exchange = exchange;
        this.captured = captured;
    }

    @Override
    public void updateCapacity(CapacityChannel channel) throws IOException {
        consumer.updateCapacity(channel);
    }

    @Override
    public void consume(ByteBuffer part) throws IOException {
        captured.add(part);
        consumer.consume(part);
    }

    @Override
    public void streamEnd(@Nullable List<? extends Header> trailers) throws HttpException, IOException {
        exchange.ended(); // before the test goes on, which may end with this response
        consumer.streamEnd(trailers);
    }

    @Override
    public void releaseResources() {
        consumer.releaseResources();
    }
}
