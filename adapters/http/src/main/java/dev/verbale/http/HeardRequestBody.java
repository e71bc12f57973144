package dev.verbale.http;

import dev.verbale.recorder.Beginning;
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
        Beginning heard = exchange.beginning(); // a new one where it is sent again
        exchange.requestBody(heard, mediaType);
        body.subscribe(new Flow.Subscriber<>() {
            @Override
            public void onSubscribe(Flow.Subscription subscription) {
                subscriber.onSubscribe(subscription);
            }

            @Override
            public void onNext(ByteBuffer part) {
                heard.add(part);
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
