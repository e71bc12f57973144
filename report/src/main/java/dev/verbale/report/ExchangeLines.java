package dev.verbale.report;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Message;
import dev.verbale.event.PaperKept;
import dev.verbale.results.Entry;
import java.io.IOException;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/** Writes exchanges for the page. */
final class ExchangeLines {

    private final PaperShelf papers;

    ExchangeLines(PaperShelf papers) {
        this.papers = papers;
    }

    /** The fields of {@code exchange}, into the object that is open. */
    void write(JsonGenerator json, Entry.ExchangeEntry exchange) throws IOException {
        ExchangeMade made = exchange.made();
        json.writeNumberProperty("took", made.micros());
        json.writeStringProperty("client", made.client());
        json.writeStringProperty("method", made.method());
        json.writeStringProperty("url", made.url());
        if (made.protocol() != null) json.writeStringProperty("protocol", made.protocol());
        if (made.status() != 0) json.writeNumberProperty("status", made.status());
        if (made.failure() != null) json.writeStringProperty("failed", made.failure());
        if (made.thread() != null) json.writeStringProperty("thread", made.thread());
        json.writeObjectPropertyStart("timings");
        made.timings().forEach(json::writeNumberProperty);
        json.writeEndObject();
        json.writeObjectPropertyStart("attributes");
        made.attributes().forEach(json::writeStringProperty);
        json.writeEndObject();
        message(json, "request", made.request(), exchange, exchange.requestFile());
        if (made.response() != null) message(json, "response", made.response(), exchange, exchange.responseFile());
    }

    private void message(
            JsonGenerator json, String side, Message message, Entry.ExchangeEntry exchange, @Nullable Path file)
            throws IOException {
        json.writeObjectPropertyStart(side);
        json.writeArrayPropertyStart("headers");
        for (Header header : message.headers()) {
            json.writeStartArray();
            json.writeString(header.name());
            json.writeString(header.value());
            json.writeEndArray();
        }
        json.writeEndArray();
        Body body = message.body();
        if (body != null) {
            json.writeObjectPropertyStart("body");
            json.writeStringProperty("mediaType", body.mediaType());
            json.writeNumberProperty("size", body.size());
            if (body.decoded() != body.size()) json.writeNumberProperty("decoded", body.decoded());
            if (body.text() != null) json.writeStringProperty("text", body.text());
            if (body.isCut()) json.writeBooleanProperty("cut", true);
            if (body.file() != null)
                papers.shelve(
                        new Entry.PaperEntry(
                                exchange.at(),
                                side + " body",
                                PaperKept.ATTACHMENT,
                                body.mediaType(),
                                body.file(),
                                file,
                                body.size(),
                                true,
                                null),
                        json);
            json.writeEndObject();
        }
        json.writeEndObject();
    }
}
