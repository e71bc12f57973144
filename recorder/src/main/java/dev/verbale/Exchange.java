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
 * <p>Here each call does nothing, as of an exchange that is not recorded: whoever stands in for one in a test of his own
 * implements what he needs, and a call more breaks nobody. The recorder's own implements them all.
 *
 * @since 0.2.0
 */
public interface Exchange {

    /** One that is not recorded. */
    Exchange NONE = new Exchange() {};

    /** What sends it, such as {@code JDK HttpClient}. */
    default Exchange client(String name) {
        return this;
    }

    /** Such as {@code HTTP/1.1}. */
    default Exchange protocol(String protocol) {
        return this;
    }

    /** Says once more where it goes to, as a redirect may. */
    default Exchange url(String url) {
        return this;
    }

    /**
     * What to send as the header {@code traceparent} (W3C Trace Context), so that the far end's own account can be found;
     * null where the settings want none. Whoever sends it records it as a header too.
     */
    default @Nullable String traceParent() {
        return null;
    }

    /** A header of the request; once more for the same name is another one. */
    default Exchange requestHeader(String name, String value) {
        return this;
    }

    /** What is sent. */
    default Exchange requestBody(byte[] body, String mediaType) {
        return this;
    }

    /** What is sent, kept while it passes by. */
    default Exchange requestBody(BoundedBuffer body, String mediaType) {
        return this;
    }

    /**
     * One part of a body of several, such as a form with files, in their order.
     *
     * @param fileName as the form calls the file; null where it is a value
     */
    default Exchange requestPart(String name, @Nullable String fileName, BoundedBuffer content, String mediaType) {
        return this;
    }

    /** One part of a body of several, of which the whole content is there. */
    default Exchange requestPart(String name, @Nullable String fileName, byte[] content, String mediaType) {
        return this;
    }

    /** How it was answered, such as 201. */
    default Exchange status(int status) {
        return this;
    }

    /** A header of the response. */
    default Exchange responseHeader(String name, String value) {
        return this;
    }

    /** What came. */
    default Exchange responseBody(byte[] body, String mediaType) {
        return this;
    }

    /** What came, kept while it passes by and the test reads it. */
    default Exchange responseBody(BoundedBuffer body, String mediaType) {
        return this;
    }

    /**
     * What the test is still to read. Gives a stream to read instead of {@code body}; the exchange ends when
     * that has been read to its end, is closed or breaks off.
     */
    default InputStream responseBody(InputStream body, String mediaType) {
        return body;
    }

    /** An empty one that keeps as much as the settings say. */
    default BoundedBuffer buffer() {
        return new BoundedBuffer(0);
    }

    /** How long a part of it took, such as {@code connect}. */
    default Exchange timing(String part, Duration duration) {
        return this;
    }

    /** Whatever else is known. */
    default Exchange attribute(String name, String value) {
        return this;
    }

    /** The exchange is over. A second end does nothing. */
    default void ended() {}

    /** There is no response, or no whole one. A second end does nothing. */
    default void failed(Throwable failure) {}

    /**
     * Writes a check of the response down, with evidence where it failed. For one that goes on where it failed.
     *
     * @return whether its failure is gathered; where it is not, the caller has to throw it
     */
    default boolean checked(String name, @Nullable Throwable failure) {
        return false;
    }

    /**
     * Writes a check of the response down that failed, and whose failure the caller throws: the test may catch it, as one does
     * that tries again. It is not gathered, and its evidence is captured where it ends the test.
     */
    default void checkFailed(String name, Throwable failure) {}
}
