package dev.verbale.http;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Future;

/**
 * The future of a response that is recorded. As those of the JDK's client, it and whatever is derived from it cancel the request; it
 * is cancelled itself first, or what comes of that underneath would come before it.
 */
final class CancelableFuture<T> extends CompletableFuture<T> {

    private final Future<?> request;

    /** @param request is cancelled with this */
    CancelableFuture(Future<?> request) {
        this.request = request;
    }

    @Override
    public boolean cancel(boolean mayInterrupt) {
        boolean cancelled = super.cancel(mayInterrupt);
        if (mayInterrupt) request.cancel(true);
        return cancelled;
    }

    @Override
    public <U> CompletableFuture<U> newIncompleteFuture() {
        return new CancelableFuture<>(request);
    }
}
