package dev.verbale;

import java.io.InputStream;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/**
 * A request that was begun, with its response. It belongs to the step that began it, whatever thread ends it, and is written
 * down when it ends, or when its test, container or run does. Names and values that are secret are masked. From any thread, one at a time.
 *
 * <pre>{@code
 * Exchange exchange = Verbale.exchange("ASK", "tcp://gate:7070");
 * exchange.requestBody("open 12".getBytes(UTF_8), "text/plain");
 * exchange.responseBody(response, "text/plain").ended();
 * }</pre>
 *
 * <p>Bodies are what went over the wire, or what a client made of it; a content coding is known by its header, and so is the
 * media type where it is given as empty. Arrays are not copied before the exchange ends. Of each body the settings say how much is kept.
 *
 * @since 0.2.0
 */
public interface Exchange {

    /** One that is not recorded. */
    Exchange NONE = new NoExchange();

    /** What sends it, such as {@code JDK HttpClient}. */
    Exchange client(String name);

    /** Such as {@code HTTP/1.1}. */
    Exchange protocol(String protocol);

    /** Says once more where it goes to, as a redirect may. */
    Exchange url(String url);

    /**
     * What to send as the header {@code traceparent} (W3C Trace Context), so that the far end's own account can be found;
     * null where the settings want none. Whoever sends it records it as a header too.
     */
    @Nullable
    String traceParent();

    /** A header of the request; once more for the same name is another one. */
    Exchange requestHeader(String name, String value);

    /** Forgets the headers recorded so far. For a client that shows them as they are sent only after some were recorded. */
    Exchange clearRequestHeaders();

    /** What is sent. */
    Exchange requestBody(byte[] body, String mediaType);

    /** The same where it passes by while it is sent. */
    Exchange requestBody(BoundedBuffer body, String mediaType);

    /**
     * One part of a body of several, such as a form with files, in their order.
     *
     * @param fileName as the form calls the file; null where it is a value
     */
    Exchange requestPart(String name, @Nullable String fileName, BoundedBuffer content, String mediaType);

    /** The same where it is all there. */
    Exchange requestPart(String name, @Nullable String fileName, byte[] content, String mediaType);

    /** How it was answered, such as 201. */
    Exchange status(int status);

    /** A header of the response. */
    Exchange responseHeader(String name, String value);

    /** What came. */
    Exchange responseBody(byte[] body, String mediaType);

    /** The same where it passes by while the test reads it. */
    Exchange responseBody(BoundedBuffer body, String mediaType);

    /**
     * The same where the test is still to read it. Gives a stream to read instead of {@code body}; the exchange ends when
     * that has been read to its end, is closed or breaks off.
     */
    InputStream responseBody(InputStream body, String mediaType);

    /** An empty one that keeps as much as the settings say. */
    BoundedBuffer buffer();

    /** How long a part of it took, such as {@code connect}. */
    Exchange timing(String part, Duration duration);

    /** Whatever else is known. */
    Exchange attribute(String name, String value);

    /**
     * The next request of the same call: a redirect that was followed, or one that was sent again. For a client that reports
     * of these only when all is over: of how long each of them took nothing is said then.
     */
    Exchange next(String method, String url);

    /**
     * Has {@code action} called where the test, or whatever it belongs to, ends before the exchange does: the last moment to read
     * what is there.
     */
    Exchange onTestEnd(Runnable action);

    /** It is over. A second end does nothing. */
    void ended();

    /** There is no response, or no whole one. A second end does nothing. */
    void failed(Throwable failure);

    /**
     * Writes a check of the response down, with evidence where it failed.
     *
     * @return whether its failure is gathered; where it is not, the caller has to throw it
     */
    boolean checked(String name, @Nullable Throwable failure);
}
