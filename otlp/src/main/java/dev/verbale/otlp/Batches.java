package dev.verbale.otlp;

import io.opentelemetry.exporter.internal.FailedExportException;
import io.opentelemetry.sdk.common.CompletableResultCode;
import java.io.IOException;
import java.net.ConnectException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;

/** Sends what it is given, some at a time, and each whole. The SDK's own batches leave out what comes too fast. */
final class Batches<T> {

    private static final int AT_ONCE = 512;

    private final String what;
    private final Function<Collection<T>, CompletableResultCode> sending;
    private final Duration patience;
    private List<T> batch = new ArrayList<>();
    private long sent;

    Batches(String what, Function<Collection<T>, CompletableResultCode> sending, Duration patience) {
        this.what = what;
        this.sending = sending;
        this.patience = patience;
    }

    void add(T one) {
        batch.add(one);
    }

    void sendWhereFull() throws IOException {
        if (batch.size() >= AT_ONCE) send();
    }

    void send() throws IOException {
        for (int from = 0; from < batch.size(); from += AT_ONCE) {
            List<T> part = batch.subList(from, Math.min(batch.size(), from + AT_ONCE));
            CompletableResultCode answer = sending.apply(part);
            answer.join(patience.toMillis(), TimeUnit.MILLISECONDS);
            if (!answer.isSuccess()) throw new IOException(refused(answer), answer.getFailureThrowable());
            sent += part.size();
        }
        batch = new ArrayList<>();
    }

    private String refused(CompletableResultCode answer) {
        if (!answer.isDone())
            return what + " were not taken within " + patience.toSeconds() + " s; " + sent + " had been";
        Throwable why = answer.getFailureThrowable();
        if (why instanceof FailedExportException.HttpExportException http && http.getResponse() != null)
            return what + " were refused with status " + http.getResponse().getStatusCode() + "; " + sent
                    + " had been taken";
        Throwable root = why;
        while (root != null && root.getCause() != null && !(root instanceof ConnectException)) root = root.getCause();
        if (root instanceof ConnectException) return what + " were not taken: nobody answers there";
        String cause =
                root == null ? "for no stated reason" : root.getClass().getSimpleName() + ": " + root.getMessage();
        return what + " were refused (" + cause + "); " + sent + " had been taken";
    }

    long sent() {
        return sent;
    }
}
