package dev.verbale.http;

import dev.verbale.BoundedBuffer;
import java.net.http.HttpRequest.BodyPublisher;
import java.nio.ByteBuffer;
import java.util.concurrent.Flow;

/** Hands a request's body on, and keeps its beginning. */
final class CapturedRequestBody implements BodyPublisher {

    private final BodyPublisher body;
    private final SentCall call;

    CapturedRequestBody(BodyPublisher body, SentCall call) {
        this.body = body;
        this.call = call;
    }

    @Override
    public long contentLength() {
        return body.contentLength();
    }

    @Override
    public void subscribe(Flow.Subscriber<? super ByteBuffer> subscriber) {
        BoundedBuffer captured = call.sendsBody(); // a new one where it is sent again
        body.subscribe(new Flow.Subscriber<>() {
            @Override
            public void onSubscribe(Flow.Subscription subscription) {
                subscriber.onSubscribe(subscription);
            }

            @Override
            public void onNext(ByteBuffer part) {
                captured.add(part);
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
