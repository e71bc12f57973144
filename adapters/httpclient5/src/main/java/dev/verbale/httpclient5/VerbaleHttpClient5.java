package dev.verbale.httpclient5;

import dev.verbale.spi.Context;
import org.apache.hc.client5.http.impl.ChainElement;
import org.apache.hc.client5.http.impl.async.HttpAsyncClientBuilder;
import org.apache.hc.client5.http.impl.classic.HttpClientBuilder;

/**
 * Makes Apache HttpClient 5 tell its exchanges:
 *
 * <pre>{@code
 * CloseableHttpClient client = VerbaleHttpClient5.watch(HttpClients.custom()).build();
 * CloseableHttpAsyncClient async = VerbaleHttpClient5.watch(HttpAsyncClients.custom()).build();
 * }</pre>
 *
 * <p>Each request that goes over the wire is a line with its response: redirects, retries and authentication too. It is written
 * when the response's body was read or closed.
 *
 * @since 0.2.0
 */
public final class VerbaleHttpClient5 {

    private VerbaleHttpClient5() {}

    /** {@code builder} itself; what it builds records its exchanges. */
    public static HttpClientBuilder watch(HttpClientBuilder builder) {
        if (builder == null || !Context.current().isRecording()) return builder;
        return builder.addExecInterceptorBefore(ChainElement.CONNECT.name(), "verbale", new RecordingExchanges())
                .addExecInterceptorBefore(
                        ChainElement.MAIN_TRANSPORT.name(), "verbale-connected", RecordingExchanges::connected);
    }

    /** Has what the asynchronous client does recorded: what it brings belongs to the step that made the call. */
    public static HttpAsyncClientBuilder watch(HttpAsyncClientBuilder builder) {
        if (builder == null || !Context.current().isRecording()) return builder;
        return builder.addExecInterceptorFirst("verbale-called", RecordingAsyncExchanges::called)
                .addExecInterceptorBefore(ChainElement.CONNECT.name(), "verbale", new RecordingAsyncExchanges());
    }
}
