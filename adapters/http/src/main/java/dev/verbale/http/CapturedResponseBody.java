package dev.verbale.http;

import dev.verbale.BoundedBuffer;
import java.net.http.HttpResponse.BodyHandler;
import java.net.http.HttpResponse.BodySubscriber;
import java.net.http.HttpResponse.ResponseInfo;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.Flow;

/** Hands a response's body on to the test as it comes, and says when it is complete. */
final class CapturedResponseBody<T> implements BodyHandler<T> {

    private final BodyHandler<T> handler;
    private final SentCall call;

    CapturedResponseBody(BodyHandler<T> handler, SentCall call) {
        this.handler = handler;
        this.call = call;
    }

    @Override
    public BodySubscriber<T> apply(ResponseInfo info) {
        BoundedBuffer captured = call.answerBegins(info);
        return new Captured<>(handler.apply(info), call, captured);
    }

    private static final class Captured<T> implements BodySubscriber<T> {
        private final BodySubscriber<T> test;
        private final SentCall call;
        private final BoundedBuffer captured;

        Captured(BodySubscriber<T> test, SentCall call, BoundedBuffer captured) {
            this.test = test;
            this.call = call;
            this.captured = captured;
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
                    call.isLeft();
                    subscription.cancel();
                }
            });
        }

        @Override
        public void onNext(List<ByteBuffer> parts) {
            for (ByteBuffer part : parts) captured.add(part);
            test.onNext(parts);
        }

        @Override
        public void onError(Throwable failure) {
            call.failed(failure);
            test.onError(failure);
        }

        @Override
        public void onComplete() {
            call.isComplete(); // before the test goes on, which may end with this response
            test.onComplete();
        }
    }
}
