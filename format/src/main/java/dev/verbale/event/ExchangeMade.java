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
 * @param thread the thread's name, where it is not that of the test it belongs to
 * @param client what sent it, such as {@code JDK HttpClient}
 * @param protocol such as {@code HTTP/1.1}, or null where it is not known
 * @param request what was sent
 * @param response what came, or null where nothing did
 * @param timing how long it took
 * @param failure why there is no response, or no whole one; null otherwise
 * @param trace where the far end's own account of it is to be found; null where nobody knows
 * @param attributes whatever else is known, by name
 * @since 0.2.0
 */
public record ExchangeMade(
        long at,
        int id,
        int in,
        @Nullable String thread,
        String client,
        @Nullable String protocol,
        Request request,
        @Nullable Response response,
        Timing timing,
        @Nullable String failure,
        @Nullable Trace trace,
        Map<String, String> attributes)
        implements Event.InScope {

    public ExchangeMade {
        attributes = Collections.unmodifiableMap(new LinkedHashMap<>(attributes));
    }

    /** The status of the response, or 0 where there is none or it has none. */
    public int status() {
        return response == null ? 0 : response.status();
    }

    /**
     * What was sent.
     *
     * @param method such as {@code GET}; of what is no HTTP, a word of its own
     * @param url where to
     * @param headers in their order; a name may stand there more than once
     * @param body null where it has none, or nobody looked at it
     */
    public record Request(
            String method,
            String url,
            List<Header> headers,
            @Nullable Body body) {
        public Request {
            headers = List.copyOf(headers);
        }
    }

    /**
     * What came.
     *
     * @param status such as 201, or 0 of what is no HTTP
     * @param headers in their order; a name may stand there more than once
     * @param body null where it has none, or nobody looked at it
     */
    public record Response(
            int status, List<Header> headers, @Nullable Body body) {
        public Response {
            headers = List.copyOf(headers);
        }
    }

    /**
     * How long it took.
     *
     * @param micros from sending to the end of the response, or of the waiting for it; null where nobody knows, as of a
     *     redirect that a client followed and reported only afterwards
     * @param parts of that in microseconds, by name, as far as the client reports them
     */
    public record Timing(@Nullable Long micros, Map<String, Long> parts) {

        /** Of one of which nobody knows. */
        public static final Timing UNKNOWN = new Timing(null, Map.of());

        public Timing {
            parts = Collections.unmodifiableMap(new LinkedHashMap<>(parts));
        }

        /** The whole in microseconds; 0 where nobody knows. */
        public long microsOrZero() {
            return micros == null ? 0 : micros;
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

    /** A request to which nothing came as yet. */
    public static Builder of(long at, Request request) {
        return new Builder(at, request);
    }

    /**
     * What may be said beside that; the components say what each is. Not for several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final long at;
        private final Request request;
        private int id;
        private int in;
        private @Nullable String thread;
        private String client = "";
        private @Nullable String protocol;
        private @Nullable Response response;
        private Timing timing = Timing.UNKNOWN;
        private @Nullable String failure;
        private @Nullable Trace trace;
        private Map<String, String> attributes = Map.of();

        private Builder(long at, Request request) {
            this.at = at;
            this.request = request;
        }

        public Builder id(int value) {
            id = value;
            return this;
        }

        public Builder in(int value) {
            in = value;
            return this;
        }

        public Builder thread(@Nullable String value) {
            thread = value;
            return this;
        }

        public Builder client(String value) {
            client = value;
            return this;
        }

        public Builder protocol(@Nullable String value) {
            protocol = value;
            return this;
        }

        public Builder response(@Nullable Response value) {
            response = value;
            return this;
        }

        public Builder timing(Timing value) {
            timing = value;
            return this;
        }

        public Builder failure(@Nullable String value) {
            failure = value;
            return this;
        }

        public Builder trace(@Nullable Trace value) {
            trace = value;
            return this;
        }

        public Builder attributes(Map<String, String> value) {
            attributes = value;
            return this;
        }

        public ExchangeMade build() {
            return new ExchangeMade(
                    at, id, in, thread, client, protocol, request, response, timing, failure, trace, attributes);
        }
    }
}
