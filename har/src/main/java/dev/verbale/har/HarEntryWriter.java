package dev.verbale.har;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Part;
import dev.verbale.event.ExchangeMade.Response;
import dev.verbale.folder.MediaTypes;
import dev.verbale.results.Entry;
import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/** Writes one exchange as an entry of an archive. What the format has no field for goes to fields that begin with _. */
final class HarEntryWriter {

    private static final int UNKNOWN = -1;

    private final JsonGenerator json;

    HarEntryWriter(JsonGenerator json) {
        this.json = json;
    }

    void write(Entry.ExchangeEntry exchange, String page) throws IOException {
        ExchangeMade made = exchange.made();
        json.writeStartObject();
        if (!page.isEmpty()) json.writeStringProperty("pageref", page);
        json.writeStringProperty("startedDateTime", exchange.at().toString());
        json.writeNumberProperty("time", millis(made.timing().microsOrZero()));
        if (made.timing().micros() == null) json.writeStringProperty("comment", "how long it took is not known");
        request(made, exchange);
        response(made, exchange);
        json.writeObjectPropertyStart("cache");
        json.writeEndObject();
        timings(made);
        if (made.failure() != null) json.writeStringProperty("_failure", made.failure());
        if (!made.client().isEmpty()) json.writeStringProperty("_client", made.client());
        json.writeEndObject();
    }

    private void request(ExchangeMade made, Entry.ExchangeEntry exchange) throws IOException {
        json.writeObjectPropertyStart("request");
        json.writeStringProperty("method", made.request().method());
        json.writeStringProperty("url", made.request().url().replaceFirst("#.*", "")); // the format wants no fragment
        json.writeStringProperty("httpVersion", made.protocol() == null ? "" : made.protocol());
        cookies(made.request().headers());
        headers(made.request().headers());
        query(made.request().url());
        Body body = made.request().body();
        if (body != null) postData(body, exchange);
        json.writeNumberProperty("headersSize", UNKNOWN);
        json.writeNumberProperty("bodySize", body == null ? 0 : body.size());
        json.writeEndObject();
    }

    private void response(ExchangeMade made, Entry.ExchangeEntry exchange) throws IOException {
        Response response = made.response() == null ? new Response(0, List.of(), null) : made.response();
        Body body = response.body();
        json.writeObjectPropertyStart("response");
        json.writeNumberProperty("status", made.status());
        json.writeStringProperty("statusText", StatusTexts.of(made.status()));
        json.writeStringProperty("httpVersion", made.protocol() == null ? "" : made.protocol());
        setCookies(response.headers());
        headers(response.headers());
        json.writeObjectPropertyStart("content");
        json.writeNumberProperty("size", body == null ? 0 : Math.max(0, body.decoded()));
        if (body != null && body.size() >= 0 && body.decoded() > body.size())
            json.writeNumberProperty("compression", body.decoded() - body.size());
        json.writeStringProperty("mimeType", body == null ? "" : body.mediaType());
        if (body != null) content(body, exchange);
        json.writeEndObject();
        json.writeStringProperty("redirectURL", value(response.headers(), "location"));
        json.writeNumberProperty("headersSize", UNKNOWN);
        json.writeNumberProperty("bodySize", body == null ? 0 : body.size());
        json.writeEndObject();
    }

    private void headers(List<Header> headers) {
        json.writeArrayPropertyStart("headers");
        for (Header header : headers) pair(header.name(), header.value());
        json.writeEndArray();
    }

    /** Of a request: several stand in one header. */
    private void cookies(List<Header> headers) {
        json.writeArrayPropertyStart("cookies");
        for (Header header : headers) {
            if (!header.name().equalsIgnoreCase("cookie")) continue;
            for (String pair : header.value().split(";\\s*")) cookie(pair, List.of());
        }
        json.writeEndArray();
    }

    /** Of a response: each has a header of its own, and says how long and for whom it is. */
    void setCookies(List<Header> headers) {
        json.writeArrayPropertyStart("cookies");
        for (Header header : headers) {
            if (!header.name().equalsIgnoreCase("set-cookie")) continue;
            for (String one : header.value().split("\\n|,(?=\\s*[^\\s;,=]+=)")) {
                String[] parts = one.strip().split(";\\s*");
                cookie(parts[0], List.of(parts).subList(1, parts.length));
            }
        }
        json.writeEndArray();
    }

    /** One whose header was masked has its mask for a name. */
    private void cookie(String pair, List<String> attributes) {
        int equals = pair.indexOf('=');
        if (equals < 1 && !pair.contains("[masked]")) return;
        json.writeStartObject();
        json.writeStringProperty("name", equals < 1 ? pair : pair.substring(0, equals));
        json.writeStringProperty("value", equals < 1 ? pair : pair.substring(equals + 1));
        for (String one : attributes) {
            int sign = one.indexOf('=');
            String name = (sign < 0 ? one : one.substring(0, sign)).strip().toLowerCase(Locale.ROOT);
            String value = sign < 0 ? "" : one.substring(sign + 1).strip();
            switch (name) {
                case "path", "domain" -> json.writeStringProperty(name, value);
                case "expires" -> moment(value);
                case "httponly" -> json.writeBooleanProperty("httpOnly", true);
                case "secure" -> json.writeBooleanProperty("secure", true);
                default -> {} // the format has no field for it
            }
        }
        json.writeEndObject();
    }

    /** The format wants ISO 8601, and a cookie has the date of HTTP (RFC 9110, 5.6.7). */
    private void moment(String date) {
        try {
            json.writeStringProperty(
                    "expires",
                    DateTimeFormatter.RFC_1123_DATE_TIME
                            .parse(date.replace('-', ' '), Instant::from)
                            .toString());
        } catch (DateTimeException odd) {
            // one of another form says nothing that the format could take
        }
    }

    private void query(String url) {
        json.writeArrayPropertyStart("queryString");
        int from = url.indexOf('?');
        String query = from < 0 ? "" : url.substring(from + 1).replaceFirst("#.*", "");
        for (String pair : query.split("&")) {
            if (pair.isEmpty()) continue;
            int equals = pair.indexOf('=');
            pair(
                    decoded(equals < 0 ? pair : pair.substring(0, equals)),
                    equals < 0 ? "" : decoded(pair.substring(equals + 1)));
        }
        json.writeEndArray();
    }

    private static String decoded(String text) {
        try {
            return URLDecoder.decode(text, StandardCharsets.UTF_8);
        } catch (IllegalArgumentException odd) {
            return text;
        }
    }

    private void pair(String name, String value) {
        json.writeStartObject();
        json.writeStringProperty("name", name);
        json.writeStringProperty("value", value);
        json.writeEndObject();
    }

    private void postData(Body body, Entry.ExchangeEntry exchange) throws IOException {
        json.writeObjectPropertyStart("postData");
        json.writeStringProperty("mimeType", body.mediaType());
        json.writeArrayPropertyStart("params");
        for (Part part : body.parts()) {
            json.writeStartObject();
            json.writeStringProperty("name", part.name());
            String value = text(part.body(), exchange);
            if (value != null) json.writeStringProperty("value", value);
            if (part.fileName() != null) json.writeStringProperty("fileName", part.fileName());
            if (!part.body().mediaType().isEmpty())
                json.writeStringProperty("contentType", part.body().mediaType());
            json.writeEndObject();
        }
        json.writeEndArray();
        String text = text(body, exchange);
        Path file = exchange.file(body);
        boolean binary = false;
        if (text == null && file != null) {
            binary = true;
            binary(file, "_encoding"); // the format has no field for it here
        } else json.writeStringProperty("text", text == null ? "" : text);
        String lost = lost(body, text != null || binary || !body.parts().isEmpty());
        if (lost != null) json.writeStringProperty("comment", lost);
        json.writeEndObject();
    }

    private void binary(Path file, String encoding) throws IOException {
        json.writeName("text");
        json.writeBinary(Files.readAllBytes(file));
        json.writeStringProperty(encoding, "base64");
    }

    private void content(Body body, Entry.ExchangeEntry exchange) throws IOException {
        String text = text(body, exchange);
        Path file = exchange.file(body);
        boolean binary = false;
        if (text != null) json.writeStringProperty("text", text);
        else if (file != null) {
            binary = true;
            binary(file, "encoding");
        }
        String lost = lost(body, text != null || binary);
        if (lost != null) json.writeStringProperty("comment", lost);
    }

    /** Whole where a file has it, or as much as there is; null where it is no text. */
    private static @Nullable String text(Body body, Entry.ExchangeEntry exchange) throws IOException {
        Path file = exchange.file(body);
        if (file == null) return body.text();
        boolean isText = body.text() != null || MediaTypes.isText(body.mediaType());
        return isText ? Files.readString(file, StandardCharsets.UTF_8) : null;
    }

    private static @Nullable String lost(Body body, boolean kept) {
        List<String> lost = new ArrayList<>();
        if (body.leftOut() != null) lost.add(body.leftOut());
        else if (!kept && body.size() != 0) lost.add("not kept as text");
        if (body.isCut()) lost.add("only the beginning was kept");
        return lost.isEmpty() ? null : String.join("; ", lost);
    }

    private static String value(List<Header> headers, String name) {
        for (Header header : headers) if (header.name().equalsIgnoreCase(name)) return header.value();
        return "";
    }

    /** Their sum is the entry's time, as the format wants it; {@code ssl} is a part of {@code connect}. */
    private void timings(ExchangeMade made) {
        Map<String, Long> known = made.timing().parts();
        long dns = known.getOrDefault("dns", 0L);
        long connect = known.getOrDefault("connect", 0L);
        long all = made.timing().microsOrZero();
        long firstByte = Math.min(all, known.getOrDefault("first byte", all));
        json.writeObjectPropertyStart("timings");
        json.writeNumberProperty("blocked", UNKNOWN);
        json.writeNumberProperty("dns", known.containsKey("dns") ? millis(dns) : UNKNOWN);
        json.writeNumberProperty("connect", known.containsKey("connect") ? millis(connect) : UNKNOWN);
        json.writeNumberProperty("ssl", known.containsKey("TLS") ? millis(known.get("TLS")) : UNKNOWN);
        json.writeNumberProperty("send", 0);
        json.writeNumberProperty("wait", millis(Math.max(0, firstByte - dns - connect)));
        json.writeNumberProperty("receive", millis(all - firstByte));
        json.writeEndObject();
    }

    private static double millis(long micros) {
        return micros / 1_000.0;
    }
}
