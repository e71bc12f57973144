package dev.verbale.http;

import dev.verbale.recorder.Beginning;
import dev.verbale.recorder.Exchange;
import java.net.http.HttpClient;
import java.net.http.HttpHeaders;
import java.net.http.HttpResponse.BodyHandler;
import java.net.http.HttpResponse.BodySubscriber;
import java.net.http.HttpResponse.ResponseInfo;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.Flow;

/** Hands an answer's body on to the test as it comes, and ends the exchange when it is complete. */
final class HeardBodies<T> implements BodyHandler<T> {

    private final BodyHandler<T> handler;
    private final Exchange exchange;
    private final long begun = System.nanoTime();

    HeardBodies(BodyHandler<T> handler, Exchange exchange) {
        this.handler = handler;
        this.exchange = exchange;
    }

    static void head(Exchange exchange, int status, HttpHeaders headers, HttpClient.Version version) {
        exchange.status(status).protocol(version == HttpClient.Version.HTTP_2 ? "HTTP/2" : "HTTP/1.1");
        headers.map().forEach((name, values) -> {
            if (!name.startsWith(":")) values.forEach(value -> exchange.responseHeader(name, value));
        });
    }

    @Override
    public BodySubscriber<T> apply(ResponseInfo info) {
        exchange.timing("first byte", Duration.ofNanos(System.nanoTime() - begun));
        head(exchange, info.statusCode(), info.headers(), info.version());
        String type = info.headers().firstValue("Content-Type").orElse("");
        return new Heard<>(handler.apply(info), exchange, type);
    }

    private static final class Heard<T> implements BodySubscriber<T> {
        private final BodySubscriber<T> test;
        private final Exchange exchange;
        private final Beginning heard;

        Heard(BodySubscriber<T> test, Exchange exchange, String mediaType) {
            this.test = test;
            this.exchange = exchange;
            this.heard = exchange.beginning();
            exchange.responseBody(heard, mediaType);
        }

        @Override
        public CompletionStage<T> getBody() {
            return test.getBody();
        }

        /** A test that stops reading a stream cancels; that is its end of the exchange. */
        @Override
        public void onSubscribe(Flow.Subscription subscription) {
            test.onSubscribe(new Flow.Subscription() {
                @Override
                public void request(long parts) {
                    subscription.request(parts);
                }

                @Override
                public void cancel() {
                    exchange.attribute("body", "the test read no further");
                    exchange.ended();
                    subscription.cancel();
                }
            });
        }

        @Override
        public void onNext(List<ByteBuffer> parts) {
            for (ByteBuffer part : parts) heard.add(part);
            test.onNext(parts);
        }

        @Override
        public void onError(Throwable failure) {
            exchange.failed(failure);
            test.onError(failure);
        }

        @Override
        public void onComplete() {
            exchange.ended(); // before the test goes on, which may end with this answer
            test.onComplete();
        }
    }
}
