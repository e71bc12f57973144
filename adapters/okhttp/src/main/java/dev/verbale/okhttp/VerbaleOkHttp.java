package dev.verbale.okhttp;

import dev.verbale.spi.AdapterRecorder;
import okhttp3.EventListener;
import okhttp3.OkHttpClient;

/**
 * Makes OkHttp tell its exchanges:
 *
 * <pre>{@code
 * OkHttpClient client = VerbaleOkHttp.watch(new OkHttpClient());
 * }</pre>
 *
 * <p>Each request that goes over the wire is a line with its response, redirects and authentication too, at the step that made
 * the call, also where it is executed on another thread. It is written when the response's body was read or closed.
 *
 * @since 0.2.0
 */
public final class VerbaleOkHttp {

    private VerbaleOkHttp() {}

    /** A client that does what {@code client} does, with the same pools and listeners; {@code client} where it is watched. */
    public static OkHttpClient watch(OkHttpClient client) {
        AdapterRecorder recorder = AdapterRecorder.current();
        if (client == null || !recorder.isRecording() || isWatched(client)) return client;
        var calls = new Calls(recorder);
        EventListener.Factory theirs = client.eventListenerFactory();
        return client.newBuilder()
                .eventListenerFactory(call -> theirs.create(call).plus(calls.begun(call)))
                .addInterceptor(new CallInterceptor(calls))
                .addNetworkInterceptor(new HopInterceptor(calls))
                .build();
    }

    private static boolean isWatched(OkHttpClient client) {
        return client.interceptors().stream().anyMatch(CallInterceptor.class::isInstance);
    }
}
