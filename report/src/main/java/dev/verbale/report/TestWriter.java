package dev.verbale.report;

import dev.verbale.event.Failure;
import dev.verbale.folder.MediaTypes;
import dev.verbale.har.HarReader;
import dev.verbale.journal.PlainFile;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Entry;
import dev.verbale.results.OwnFrames;
import dev.verbale.results.Run;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.StepArgument;
import dev.verbale.vocabulary.StepKind;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * What happened in a test, as the page reads it: its shape is {@code TestData} in the page's types. For one thread; what it shares with
 * others is the attachments.
 */
final class TestWriter {

    /** An archive may hold what a browser asked in an hour, and stands in a page for somebody to read. */
    private static final int MAX_OF_AN_ARCHIVE = 500;

    private final OwnFrames own;
    private final Instant start;
    private final AttachmentCopier attachments;
    private final PageContent content;
    private final SharedTexts texts;
    /** What happened in the test that is being written. */
    private List<Entry> entries = List.of();
    /** And what was checked of the exchanges in there. */
    private Map<Integer, List<Entry.CheckEntry>> checks = Map.of();

    /** @param start from which moments are counted */
    TestWriter(Instant start, OwnFrames own, AttachmentCopier attachments, PageContent content, SharedTexts texts) {
        this.start = start;
        this.own = own;
        this.attachments = attachments;
        this.content = content;
        this.texts = texts;
    }

    /** How much a reader is told of a test beside what happened in it. */
    enum With {
        /** The list of tests has it. */
        NOTHING,
        /** Its id: the page may be replaced while it is read, and its rows will be in other positions. */
        ID,
        /** How it ended: it is in no list that would say it. */
        END
    }

    /** @param checked what was checked of each of its exchanges, by the exchange's id */
    void write(JsonGenerator json, Row row, Map<Integer, List<Entry.CheckEntry>> checked, With with)
            throws IOException {
        entries = row.entries();
        checks = checked;
        json.writeStartObject();
        if (with == With.END) {
            json.writeStringProperty("outcome", row.outcome().word());
            json.writeNumberProperty("duration", RunFile.micros(row.duration()));
        }
        if (with == With.ID) json.writeStringProperty("id", row.id());
        if (row.isLeftOut()) json.writeBooleanProperty("leftOut", true);
        entries(json, row.entries());
        failure(json, row.failure());
        json.writeEndObject();
        checks = Map.of();
    }

    /** A container that did something itself is shown as a step of the run. */
    void writeOutside(JsonGenerator json, Run run) throws IOException {
        json.writeStartObject();
        json.writeArrayPropertyStart("entries");
        for (Entry entry : run.entries()) if (content.has(entry)) entry(json, entry);
        for (ContainerResult container : run.containers()) {
            if (container.entries().isEmpty() && container.failure() == null) continue;
            json.writeStartObject();
            head(json, "step", container.started());
            json.writeStringProperty("name", container.name());
            json.writeStringProperty("outcome", container.outcome().word());
            json.writeNumberProperty("duration", RunFile.micros(container.duration()));
            failure(json, container.failure());
            entries(json, container.entries());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private void entries(JsonGenerator json, List<Entry> entries) throws IOException {
        json.writeArrayPropertyStart("entries");
        for (Entry entry : entries) if (content.has(entry)) entry(json, entry);
        json.writeEndArray();
    }

    private void entry(JsonGenerator json, Entry entry) throws IOException {
        json.writeStartObject();
        if (entry instanceof Entry.StepEntry step) {
            head(json, "step", step.at());
            if (!step.kind().equals(StepKind.ACTION))
                json.writeStringProperty("kind", step.kind().word());
            json.writeStringProperty("name", step.name());
            json.writeStringProperty("outcome", step.outcome().word());
            json.writeNumberProperty("duration", RunFile.micros(step.duration()));
            if (step.budget() != null) json.writeNumberProperty("budget", RunFile.micros(step.budget()));
            if (step.reason() != null) json.writeStringProperty("reason", step.reason());
            thread(json, step.thread());
            if (step.argument() != null) argument(json, step.argument());
            failure(json, step.failure());
            entries(json, step.entries());
        } else if (entry instanceof Entry.LogEntry log) {
            head(json, "log", log.at());
            if (log.level() != null) json.writeStringProperty("level", log.level());
            if (log.logger() != null) json.writeStringProperty("logger", log.logger());
            if (log.written().marker() != null)
                json.writeStringProperty("marker", log.written().marker());
            json.writeStringProperty("text", log.text());
            thread(json, log.thread());
            if (!log.context().isEmpty())
                json.writeStringProperty("context", log.context().toString());
            failure(json, log.failure());
        } else if (entry instanceof Entry.ExchangeEntry exchange) {
            head(json, "exchange", exchange.at());
            new ExchangeLines(attachments, texts)
                    .write(json, exchange, checks.getOrDefault(exchange.made().id(), List.of()));
        } else if (entry instanceof Entry.CheckEntry check) {
            head(json, "check", check.at());
            json.writeStringProperty("name", check.name());
            json.writeStringProperty("outcome", check.outcome().word());
            if (check.failure() == null && check.actual() != null) json.writeStringProperty("actual", check.actual());
            failure(json, check.failure());
        } else if (entry instanceof Entry.DataEntry data) {
            head(json, "data", data.at());
            json.writeStringProperty("name", data.name());
            json.writeStringProperty("value", data.value());
        } else if (entry instanceof Entry.AttachmentEntry attachment) {
            head(json, "attachment", attachment.at());
            json.writeStringProperty("name", attachment.name());
            json.writeStringProperty("kind", attachment.kind());
            json.writeStringProperty("mediaType", attachment.stored().mediaType());
            json.writeNumberProperty("size", attachment.stored().size());
            attachments.copy(attachment.file(), attachment.stored().mediaType(), json);
            if (attachment.file() == null && attachment.stored().leftOut() != null)
                json.writeStringProperty("leftOut", attachment.stored().leftOut());
            if (attachment.stored().mediaType().equals(MediaTypes.HTTP_ARCHIVE) && attachment.file() != null)
                archive(json, attachment.file());
            if (attachment.begins() != null) timed(json, attachment, attachment.begins());
        } else if (entry instanceof Entry.PendingEntry pending) {
            head(json, "pending", pending.at());
            json.writeStringProperty("name", pending.name());
        } else if (entry instanceof Entry.UnknownEntry unknown) {
            head(json, "unknown", unknown.at());
            json.writeStringProperty("word", unknown.word());
            json.writeStringProperty("json", unknown.json());
            entries(json, unknown.entries());
        } else {
            throw new IllegalArgumentException("no drawing is known for " + entry.getClass());
        }
        json.writeEndObject();
    }

    private static void argument(JsonGenerator json, StepArgument argument) {
        if (argument.text() != null) json.writeStringProperty("below", argument.text());
        if (argument.rows().isEmpty()) return;
        json.writeArrayPropertyStart("table");
        for (List<String> row : argument.rows()) {
            json.writeStartArray();
            for (String cell : row) json.writeString(cell);
            json.writeEndArray();
        }
        json.writeEndArray();
    }

    /** What an HTTP archive holds, to be read like exchanges of our own. */
    private void archive(JsonGenerator json, Path file) throws IOException {
        List<Entry.ExchangeEntry> held;
        try (InputStream in = PlainFile.open(file)) {
            held = HarReader.read(in);
        } catch (IOException unreadable) {
            json.writeStringProperty("unread", String.valueOf(unreadable.getMessage()));
            return;
        }
        var lines = new ExchangeLines(attachments, texts);
        json.writeNumberProperty("held", held.size());
        json.writeArrayPropertyStart("exchanges");
        for (Entry.ExchangeEntry one : held.subList(0, Math.min(MAX_OF_AN_ARCHIVE, held.size())))
            lines.writeAlone(json, one, start);
        json.writeEndArray();
    }

    private void timed(JsonGenerator json, Entry.AttachmentEntry attachment, Instant begins) throws IOException {
        json.writeNumberProperty("begins", RunFile.micros(Duration.between(start, begins)));
        if (attachment.kind().equals(AttachmentKind.VIDEO))
            attachments.writeCaptions(attachment, Captions.of(entries, begins), json);
    }

    private void head(JsonGenerator json, String type, Instant at) {
        json.writeStringProperty("type", type);
        json.writeNumberProperty("at", RunFile.micros(Duration.between(start, at)));
    }

    private static void thread(JsonGenerator json, @Nullable String thread) {
        if (thread != null) json.writeStringProperty("thread", thread);
    }

    private void failure(JsonGenerator json, @Nullable Failure failure) {
        if (failure == null) return;
        json.writeName("failure");
        failureObject(json, failure);
    }

    private void failureObject(JsonGenerator json, Failure failure) {
        json.writeStartObject();
        json.writeStringProperty("type", failure.type());
        if (failure.message() != null) texts.write(json, "message", failure.message());
        if (failure.expected() != null) texts.write(json, "expected", failure.expected());
        if (failure.actual() != null) texts.write(json, "actual", failure.actual());
        texts.write(json, "stack", failure.stack());
        ownLines(json, failure.stack());
        if (!failure.gathered().isEmpty()) {
            json.writeArrayPropertyStart("gathered");
            for (Failure one : failure.gathered()) failureObject(json, one);
            json.writeEndArray();
        }
        json.writeEndObject();
    }

    /** Which lines of a stack are of the suite's own code. */
    private void ownLines(JsonGenerator json, String stack) {
        json.writeArrayPropertyStart("own");
        int number = 0;
        for (String line : (Iterable<String>) stack.lines()::iterator) {
            if (own.isOwnLine(line)) json.writeNumber(number);
            number++;
        }
        json.writeEndArray();
    }
}
