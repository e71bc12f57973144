package dev.verbale.http;

import dev.verbale.recorder.Recorder;
import java.net.http.HttpClient;

/**
 * Makes the JDK's HTTP client tell its exchanges:
 *
 * <pre>{@code
 * HttpClient client = VerbaleHttp.watch(HttpClient.newHttpClient());
 * }</pre>
 *
 * <p>Each request is written down with its answer, at the step that sent it, when the answer's body is complete or the
 * waiting for it is over. Redirects are lines of their own. The test reads the body as before, a stream is not held up, and
 * of a body that is longer than a megabyte the beginning is kept.
 */
public final class VerbaleHttp {

    private VerbaleHttp() {}

    /** A client that does what {@code client} does. */
    public static HttpClient watch(HttpClient client) {
        return client != null && Recorder.current().isRecording() ? new WatchedClient(client) : client;
    }
}
