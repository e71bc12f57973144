package dev.verbale.http;

import dev.verbale.recorder.Exchange;
import java.net.http.HttpRequest.BodyPublisher;
import java.nio.ByteBuffer;
import java.util.concurrent.Flow;

/** Hands a request's body on, and keeps its beginning. */
final class HeardRequestBody implements BodyPublisher {

    private final BodyPublisher body;
    private final Exchange exchange;
    private final String mediaType;

    HeardRequestBody(BodyPublisher body, Exchange exchange, String mediaType) {
        this.body = body;
        this.exchange = exchange;
        this.mediaType = mediaType;
    }

    @Override
    public long contentLength() {
        return body.contentLength();
    }

    @Override
    public void subscribe(Flow.Subscriber<? super ByteBuffer> subscriber) {
        var heard = new Beginning();
        body.subscribe(new Flow.Subscriber<>() {
            @Override
            public void onSubscribe(Flow.Subscription subscription) {
                subscriber.onSubscribe(subscription);
            }

            @Override
            public void onNext(ByteBuffer part) {
                heard.add(part);
                exchange.requestBody(heard.bytes(), mediaType); // an answer may come before the last part is sent
                subscriber.onNext(part);
            }

            @Override
            public void onError(Throwable failure) {
                subscriber.onError(failure);
            }

            @Override
            public void onComplete() {
                subscriber.onComplete();
            }
        });
    }
}
