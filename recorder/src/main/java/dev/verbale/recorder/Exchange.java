package dev.verbale.recorder;

import java.time.Duration;

/**
 * A request that was begun, with its answer. It belongs to the step that began it, whatever thread ends it, and is written
 * down when it ends; one that never does is not. Names and values that are secret are masked. From any thread, one at a time.
 *
 * <pre>{@code
 * Exchange exchange = Verbale.exchange("ASK", "tcp://gate:7070");
 * exchange.requestBody("open 12".getBytes(UTF_8), "text/plain");
 * exchange.responseBody(answer, "text/plain").ended();
 * }</pre>
 */
public interface Exchange {
    /** What sends it, such as {@code JDK HttpClient}. */
    Exchange client(String name);

    /** Such as {@code HTTP/1.1}. */
    Exchange protocol(String protocol);

    /** Says once more where it goes to, as a redirect may. */
    Exchange url(String url);

    /** A header of the request; once more for the same name is another one. */
    Exchange requestHeader(String name, String value);

    /** What is sent; the content coding is told by its header. Not copied before it ends. */
    Exchange requestBody(byte[] body, String mediaType);

    /** How it was answered, such as 201. */
    Exchange status(int status);

    /** A header of the answer. */
    Exchange responseHeader(String name, String value);

    /** What came; the content coding is told by its header. Not copied before it ends. */
    Exchange responseBody(byte[] body, String mediaType);

    /** The same where more came than {@code beginning}: {@code size} bytes in all. */
    Exchange responseBody(byte[] beginning, long size, String mediaType);

    /** How long a part of it took, such as {@code connect}. */
    Exchange timing(String part, Duration took);

    /** Whatever else is known. */
    Exchange attribute(String name, String value);

    /** It is over. A second end does nothing. */
    void ended();

    /** There is no answer, or no whole one. A second end does nothing. */
    void failed(Throwable failure);
}
