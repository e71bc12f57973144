package dev.verbale.har;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Part;
import dev.verbale.event.ExchangeMade.Request;
import dev.verbale.event.ExchangeMade.Response;
import dev.verbale.event.ExchangeMade.Timing;
import dev.verbale.folder.MediaTypes;
import dev.verbale.json.WallClockText;
import dev.verbale.results.Entry.ExchangeEntry;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads the exchanges of an archive, whoever wrote it.
 *
 * @since 0.2.0
 */
public final class HarReader {

    private static final JsonMapper JSON = new JsonMapper();

    /** A year. */
    private static final long LONGEST_MICROS = 31_536_000_000_000L;

    private HarReader() {}

    /** Keeps bodies that are no text. */
    @FunctionalInterface
    public interface BodyFiles {
        /** A file with {@code bytes}: its path below the run folder, with forward slashes. */
        String kept(byte[] bytes) throws IOException;
    }

    /**
     * Its exchanges in their order. A field that is missing, or is of another kind than the format says, is passed over.
     *
     * @throws IOException where it is no JSON, or has no {@code log.entries}; the message says which
     */
    public static List<ExchangeEntry> read(InputStream in) throws IOException {
        return read(in, null);
    }

    /**
     * The same, with bodies that are no text.
     *
     * @param files keeps them; null leaves them out
     * @throws IOException where it is no JSON, or has no {@code log.entries}; the message says which
     */
    public static List<ExchangeEntry> read(InputStream in, @Nullable BodyFiles files) throws IOException {
        JsonNode root;
        try {
            root = JSON.readTree(in);
        } catch (JacksonException broken) {
            throw new IOException("not JSON: " + broken.getOriginalMessage(), broken);
        }
        JsonNode entries = root.path("log").path("entries");
        if (!entries.isArray()) throw new IOException("no HTTP archive: it has no log.entries");
        List<ExchangeEntry> read = new ArrayList<>();
        for (JsonNode entry : entries) read.add(exchange(entry, files));
        return read;
    }

    private static ExchangeEntry exchange(JsonNode entry, @Nullable BodyFiles files) throws IOException {
        JsonNode request = entry.path("request");
        JsonNode response = entry.path("response");
        int status = response.path("status").asInt(0);
        String failure = text(entry, "_failure", text(entry, "_error", text(response, "_error", "")));
        boolean answered = status > 0 || response.path("headers").size() > 0;
        String protocol = text(request, "httpVersion", "").toUpperCase(Locale.ROOT);
        var made = ExchangeMade.of(
                        0,
                        new Request(
                                text(request, "method", "?"),
                                text(request, "url", "?"),
                                headers(request),
                                posted(request, files)))
                .client(text(entry, "_client", ""))
                .protocol(protocol.isEmpty() ? null : protocol)
                .response(
                        answered
                                ? new Response(Math.max(0, status), headers(response), content(response, files))
                                : null)
                .timing(new Timing(micros(entry.path("time")), timings(entry.path("timings"))))
                .failure(failure.isEmpty() ? (answered ? null : "no response") : failure)
                .build();
        return new ExchangeEntry(moment(text(entry, "startedDateTime", "")), made, Map.of());
    }

    private static Instant moment(String text) {
        try {
            Instant moment = OffsetDateTime.parse(text).toInstant();
            return WallClockText.isPossible(moment) ? moment : Instant.EPOCH;
        } catch (DateTimeException unknown) {
            return Instant.EPOCH;
        }
    }

    private static List<Header> headers(JsonNode message) {
        List<Header> headers = new ArrayList<>();
        for (JsonNode header : message.path("headers"))
            if (!text(header, "name", "").startsWith(":")) // of HTTP/2: the method and the address once more
            headers.add(new Header(text(header, "name", ""), text(header, "value", "")));
        return headers;
    }

    private static @Nullable Body posted(JsonNode request, @Nullable BodyFiles files) throws IOException {
        JsonNode data = request.path("postData");
        if (!data.isObject()) return null;
        String type = text(data, "mimeType", "");
        List<Part> parts = new ArrayList<>();
        if (type.startsWith("multipart/"))
            for (JsonNode param : data.path("params")) {
                String value = text(param, "value", "");
                JsonNode file = param.path("fileName");
                parts.add(new Part(
                        text(param, "name", ""),
                        file.isString() ? file.asString() : null,
                        body(text(param, "contentType", ""), length(value), length(value), value)));
            }
        long size = request.path("bodySize").asLong(-1);
        if (!parts.isEmpty()) return new Body(type, size, size, null, false, null, parts, null);
        return fromText(data, type, size, length(text(data, "text", "")), files);
    }

    private static @Nullable Body content(JsonNode response, @Nullable BodyFiles files) throws IOException {
        JsonNode content = response.path("content");
        String text = text(content, "text", "");
        long decoded = content.path("size").asLong(length(text));
        long size = response.path("bodySize").asLong(-1);
        if (text.isEmpty() && decoded <= 0) return null;
        String type = text(content, "mimeType", "");
        if (text.isEmpty()) return leftOut(type, size, decoded, "not in the archive");
        return fromText(content, type, size, decoded, files);
    }

    /** The format says of responses only that they may be in base64; writers say it of requests too. */
    private static Body fromText(JsonNode body, String type, long size, long decoded, @Nullable BodyFiles files)
            throws IOException {
        String text = text(body, "text", "");
        if (!text(body, "encoding", text(body, "_encoding", "")).equalsIgnoreCase("base64"))
            return body(type, size, decoded, text);
        try {
            byte[] bytes = Base64.getMimeDecoder().decode(text);
            if (bytes.length == 0 && !text.isBlank())
                return leftOut(type, size, decoded, "in the archive, and no base64");
            String readable = readable(bytes, type);
            if (readable == null && files != null)
                return new Body(type, size, bytes.length, null, false, files.kept(bytes), List.of(), null);
            return readable == null
                    ? leftOut(type, size, bytes.length, "binary, in the archive")
                    : body(type, size, bytes.length, readable);
        } catch (IllegalArgumentException broken) {
            return leftOut(type, size, decoded, "in the archive, and not readable: " + broken.getMessage());
        }
    }

    /** Null where they are no text in the charset that the type says, or UTF-8. */
    private static @Nullable String readable(byte[] bytes, String type) {
        try {
            String text = MediaTypes.charset(type)
                    .newDecoder()
                    .decode(ByteBuffer.wrap(bytes))
                    .toString();
            return text.indexOf('\0') < 0 ? text : null;
        } catch (CharacterCodingException | IllegalArgumentException noText) {
            return null;
        }
    }

    /** In bytes. */
    private static long length(String text) {
        return text.getBytes(StandardCharsets.UTF_8).length;
    }

    private static Body body(String type, long size, long decoded, String text) {
        return new Body(type, size, Math.max(0, decoded), text, false, null, List.of(), null);
    }

    private static Body leftOut(String type, long size, long decoded, String why) {
        return new Body(type, size, Math.max(0, decoded), null, false, null, List.of(), why);
    }

    private static Map<String, Long> timings(JsonNode timings) {
        Map<String, Long> read = new LinkedHashMap<>();
        part(timings, "dns", "dns", read);
        part(timings, "connect", "connect", read);
        part(timings, "ssl", "TLS", read);
        long firstByte = 0;
        for (String before : List.of("blocked", "dns", "connect", "send", "wait"))
            firstByte += micros(timings.path(before));
        if (timings.path("wait").isNumber()) read.put("first byte", firstByte);
        return read;
    }

    private static void part(JsonNode timings, String name, String ours, Map<String, Long> read) {
        if (timings.path(name).isNumber() && timings.path(name).asDouble() >= 0)
            read.put(ours, micros(timings.path(name)));
    }

    private static long micros(JsonNode millis) {
        return millis.isNumber() ? Math.max(0, Math.min(LONGEST_MICROS, Math.round(millis.asDouble() * 1_000))) : 0;
    }

    private static String text(JsonNode node, String field, String fallback) {
        JsonNode value = node.path(field);
        return value.isString() ? value.asString() : fallback;
    }
}
