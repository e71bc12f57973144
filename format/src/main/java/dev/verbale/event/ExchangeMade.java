package dev.verbale.event;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A request was sent, and answered or not.
 *
 * @param at when it was sent
 * @param id by which checks name it; 0 where none can
 * @param in the step, test or container that sent it, or 0 for the run
 * @param client what sent it, such as {@code JDK HttpClient}
 * @param method such as {@code GET}; of what is no HTTP, a word of its own
 * @param url where to
 * @param protocol such as {@code HTTP/1.1}, or null where it is not known
 * @param micros from sending to the end of the answer, or of the waiting for it; {@link #UNKNOWN} where nobody knows, as of a
 *     redirect that a client followed and told of only afterwards
 * @param timings parts of that in microseconds, by name, as far as the client tells them
 * @param request what was sent
 * @param status of the answer, or 0 where there was none or it has none
 * @param response what came, or null where nothing did
 * @param failure why there is no answer, or no whole one; null otherwise
 * @param thread the thread's name, where it is not told by the test that it belongs to
 * @param trace where the far end's own account of it is to be found; null where nobody knows
 * @param attributes whatever else is known, by name
 */
public record ExchangeMade(
        long at,
        int id,
        int in,
        String client,
        String method,
        String url,
        @Nullable String protocol,
        long micros,
        Map<String, Long> timings,
        Message request,
        int status,
        @Nullable Message response,
        @Nullable String failure,
        @Nullable String thread,
        @Nullable Trace trace,
        Map<String, String> attributes)
        implements Event {

    /** A time that nobody knows. */
    public static final long UNKNOWN = -1;

    public ExchangeMade {
        timings = Collections.unmodifiableMap(new LinkedHashMap<>(timings));
        attributes = Collections.unmodifiableMap(new LinkedHashMap<>(attributes));
    }

    /**
     * One side of it.
     *
     * @param headers in their order; a name may stand there more than once
     * @param body null where it has none, or nobody looked at it
     */
    public record Message(List<Header> headers, @Nullable Body body) {
        public Message {
            headers = List.copyOf(headers);
        }
    }

    /** A header, or what comes close to one. */
    public record Header(String name, String value) {}

    /**
     * What its request said in the header {@code traceparent}.
     *
     * @param id the trace's, 32 hexadecimal digits (W3C Trace Context)
     * @param address where a person finds the trace; null where the settings have no pattern for it
     */
    public record Trace(String id, @Nullable String address) {}

    /**
     * A body.
     *
     * @param mediaType with its parameters, as it was said; empty where nobody said it
     * @param size in bytes on the wire, or -1 where nobody knows
     * @param decoded in bytes, once its content coding was undone; as {@code size} where there is none
     * @param text of it; where there is a file too, the beginning of that; null where it is kept as a file only, in parts, or not
     *     at all
     * @param isCut whether all that is kept, be it text or file, is only its beginning
     * @param file where it is: a path below the run folder with forward slashes; null where it is no file
     * @param parts of a body of several, such as a form with files
     * @param leftOut why nothing of it is kept; null where something is
     */
    public record Body(
            String mediaType,
            long size,
            long decoded,
            @Nullable String text,
            boolean isCut,
            @Nullable String file,
            List<Part> parts,
            @Nullable String leftOut) {
        public Body {
            parts = List.copyOf(parts);
        }
    }

    /**
     * One of several in a body.
     *
     * @param name of the form's field; empty where it has none
     * @param fileName as the sender called the file; null where it is none
     * @param head its own header lines, parted by CR LF, as they were sent; null where nobody knows
     */
    public record Part(
            String name,
            @Nullable String fileName,
            @Nullable String head,
            Body body) {

        /** One whose head nobody knows. */
        public Part(String name, @Nullable String fileName, Body body) {
            this(name, fileName, null, body);
        }
    }
}
