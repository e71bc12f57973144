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
 * @param in the step, test or container that sent it, or 0 for the run
 * @param client what sent it, such as {@code JDK HttpClient}
 * @param method such as {@code GET}; of what is no HTTP, a word of its own
 * @param url where to
 * @param protocol such as {@code HTTP/1.1}, or null where it is not known
 * @param micros from sending to the end of the answer, or of the waiting for it
 * @param timings parts of that in microseconds, by name, as far as the client tells them
 * @param request what was sent
 * @param status of the answer, or 0 where there was none or it has none
 * @param response what came, or null where nothing did
 * @param failure why there is no answer, or no whole one; null otherwise
 * @param thread the thread's name, where it is not told by the test that it belongs to
 * @param attributes whatever else is known, by name
 */
public record ExchangeMade(
        long at,
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
        Map<String, String> attributes)
        implements Event {

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
     * A body.
     *
     * @param mediaType with its parameters, as it was said; empty where nobody said it
     * @param size in bytes on the wire, or -1 where nobody knows
     * @param decoded in bytes, once its content coding was undone; as {@code size} where there is none
     * @param text of it, or its beginning; null where it is kept as a file
     * @param isCut whether {@code text} is only its beginning
     * @param file where it is: a path below the run folder with forward slashes; null where it is text
     */
    public record Body(
            String mediaType,
            long size,
            long decoded,
            @Nullable String text,
            boolean isCut,
            @Nullable String file) {}
}
