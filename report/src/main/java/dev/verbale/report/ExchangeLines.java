package dev.verbale.report;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Part;
import dev.verbale.results.Entry;
import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/** Writes exchanges for the page. */
final class ExchangeLines {

    private final AttachmentCopier attachments;
    private final SharedTexts texts;

    ExchangeLines(AttachmentCopier attachments, SharedTexts texts) {
        this.attachments = attachments;
        this.texts = texts;
    }

    /** {@code exchange} as an object of its own, its moment counted from {@code start}. */
    void writeAlone(JsonGenerator json, Entry.ExchangeEntry exchange, Instant start) throws IOException {
        json.writeStartObject();
        json.writeStringProperty("type", "exchange");
        json.writeNumberProperty("at", RunFile.micros(Duration.between(start, exchange.at())));
        write(json, exchange, List.of());
        json.writeEndObject();
    }

    /** The fields of {@code exchange}, and what was checked of its response, into the object that is open. */
    void write(JsonGenerator json, Entry.ExchangeEntry exchange, List<Entry.CheckEntry> checks) throws IOException {
        ExchangeMade made = exchange.made();
        if (made.timing().micros() != null)
            json.writeNumberProperty("duration", made.timing().microsOrZero());
        if (made.id() != 0) json.writeNumberProperty("id", made.id());
        json.writeStringProperty("client", made.client());
        json.writeStringProperty("method", made.request().method());
        json.writeStringProperty("url", made.request().url());
        if (made.protocol() != null) json.writeStringProperty("protocol", made.protocol());
        if (made.status() != 0) json.writeNumberProperty("status", made.status());
        if (made.failure() != null) json.writeStringProperty("failed", made.failure());
        if (made.thread() != null) json.writeStringProperty("thread", made.thread());
        json.writeObjectPropertyStart("timings");
        made.timing().parts().forEach(json::writeNumberProperty);
        json.writeEndObject();
        json.writeObjectPropertyStart("attributes");
        made.attributes().forEach(json::writeStringProperty);
        json.writeEndObject();
        if (made.trace() != null) {
            json.writeObjectPropertyStart("trace");
            json.writeStringProperty("id", made.trace().id());
            String address = made.trace().address();
            if (address != null && address.matches("(?i)https?://.*")) // a journal may come from anywhere
            json.writeStringProperty("address", address);
            json.writeEndObject();
        }
        if (!checks.isEmpty()) checks(json, checks);
        message(json, "request", made.request().headers(), made.request().body(), exchange);
        if (made.response() != null)
            message(json, "response", made.response().headers(), made.response().body(), exchange);
    }

    private static void checks(JsonGenerator json, List<Entry.CheckEntry> checks) {
        json.writeArrayPropertyStart("checks");
        for (Entry.CheckEntry check : checks) {
            json.writeStartArray();
            json.writeString(check.outcome().word());
            json.writeString(check.name());
            json.writeEndArray();
        }
        json.writeEndArray();
    }

    private void message(
            JsonGenerator json, String side, List<Header> headers, @Nullable Body body, Entry.ExchangeEntry exchange)
            throws IOException {
        json.writeObjectPropertyStart(side);
        json.writeArrayPropertyStart("headers");
        for (Header header : headers) {
            json.writeStartArray();
            json.writeString(header.name());
            json.writeString(header.value());
            json.writeEndArray();
        }
        json.writeEndArray();
        if (body != null) body(json, body, exchange);
        json.writeEndObject();
    }

    private void body(JsonGenerator json, Body body, Entry.ExchangeEntry exchange) throws IOException {
        json.writeObjectPropertyStart("body");
        json.writeStringProperty("mediaType", body.mediaType());
        json.writeNumberProperty("size", body.size());
        if (body.decoded() != body.size()) json.writeNumberProperty("decoded", body.decoded());
        if (body.text() != null) texts.write(json, "inline", body.text());
        if (body.isCut()) json.writeBooleanProperty("cut", true);
        if (body.leftOut() != null) json.writeStringProperty("leftOut", body.leftOut());
        if (body.file() != null) {
            attachments.copy(exchange.file(body), body.mediaType(), json);
        }
        if (!body.parts().isEmpty()) {
            json.writeArrayPropertyStart("parts");
            for (Part part : body.parts()) {
                json.writeStartObject();
                json.writeStringProperty("name", part.name());
                if (part.fileName() != null) json.writeStringProperty("fileName", part.fileName());
                if (part.head() != null) json.writeStringProperty("head", part.head());
                body(json, part.body(), exchange);
                json.writeEndObject();
            }
            json.writeEndArray();
        }
        json.writeEndObject();
    }
}
