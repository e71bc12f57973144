package dev.verbale.http;

import dev.verbale.spi.Capture;
import java.net.http.HttpClient;

/**
 * Makes the JDK's HTTP client tell its exchanges:
 *
 * <pre>{@code
 * HttpClient client = VerbaleHttp.watch(HttpClient.newHttpClient());
 * }</pre>
 *
 * <p>Each request is written down with its response, at the step that sent it, when the response's body is complete or the
 * waiting for it is over. Redirects, and requests sent again with credentials, are lines of their own: the client reports
 * them only with its last response, so these have no times. The test reads the body as before, a stream is not held up, and of a
 * body that is longer than a megabyte the beginning is kept.
 *
 * <p>Not seen are headers that the client adds by itself, such as {@code User-Agent}, those that a {@link
 * java.net.CookieHandler} of the suite's own adds, and credentials that it sends without having been asked for them.
 *
 * @since 0.2.0
 */
public final class VerbaleHttp {

    private VerbaleHttp() {}

    /** A client that does what {@code client} does; {@code client} itself where it is watched already. */
    public static HttpClient watch(HttpClient client) {
        if (client == null
                || client instanceof WatchedClient
                || !Capture.current().isRecording()) return client;
        return new WatchedClient(client);
    }
}
