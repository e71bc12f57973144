package dev.verbale.report;

import dev.verbale.event.About;
import dev.verbale.event.About.Link;
import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import dev.verbale.history.ReasonHistory;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Entry;
import dev.verbale.results.FailureTitle;
import dev.verbale.results.LastMoment;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.Worker;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.StringJoiner;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/** {@code data/run.js}: what the page knows as soon as it opens. Its shape is {@code RunData} in the page's types. */
final class RunFile {

    private static final int LONGEST_MESSAGE = 500;
    private static final int LONGEST_DATA = 4_000;

    private RunFile() {}

    static void write(
            Run run,
            List<Row> rows,
            int exchanges,
            @Nullable BaselineExchanges baseline,
            @Nullable EarlierRuns earlier,
            Path file)
            throws IOException {
        List<FailureReason> reasons = FailureReason.of(run);
        ScriptFile.write(file, "run", null, json -> {
            json.writeStartObject();
            json.writeStringProperty("name", run.name());
            json.writeStringProperty("started", run.started().toString());
            json.writeNumberProperty("duration", micros(run.duration()));
            json.writeStringProperty("sentence", Headline.withoutGaps(run));
            if (!run.incomplete().isNothing())
                json.writeStringProperty("incomplete", run.incomplete().sentence());
            json.writeNumberProperty("chunk", TestFiles.CHUNK);
            json.writeNumberProperty("overhead", run.overhead());
            json.writeNumberProperty("exchanges", exchanges);
            if (baseline != null) json.writeStringProperty("baseline", baseline.name());
            if (earlier != null) {
                json.writeObjectPropertyStart("earlier");
                json.writeNumberProperty("runs", earlier.runs());
                json.writeStringProperty("last", earlier.last().toString());
                json.writeEndObject();
            }
            counts(json, run);
            facts(json, run);
            workers(json, run);
            problems(json, run);
            reasons(json, reasons, run, earlier);
            rows(json, rows, run, reasons, earlier);
            json.writeEndObject();
        });
    }

    private static void counts(JsonGenerator json, Run run) {
        json.writeObjectPropertyStart("counts");
        run.counts().byOutcome().forEach((outcome, count) -> json.writeNumberProperty(outcome.word(), count));
        json.writeEndObject();
    }

    /** As pairs: a fact's name comes from a test, and must not become the name of a property. */
    private static void facts(JsonGenerator json, Run run) {
        json.writeArrayPropertyStart("facts");
        run.facts().forEach((name, value) -> {
            json.writeStartArray();
            json.writeString(name);
            json.writeString(value);
            json.writeEndArray();
        });
        json.writeEndArray();
    }

    private static void workers(JsonGenerator json, Run run) {
        json.writeArrayPropertyStart("workers");
        for (Worker worker : run.workers()) {
            json.writeStartObject();
            json.writeStringProperty("name", worker.name());
            json.writeNumberProperty("began", micros(Duration.between(run.started(), worker.started())));
            json.writeBooleanProperty("ended", worker.ended());
            json.writeNumberProperty("missing", worker.missing());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private static void problems(JsonGenerator json, Run run) {
        json.writeArrayPropertyStart("problems");
        for (Problem problem : run.problems()) json.writeString(problem.sentence());
        json.writeEndArray();
    }

    private static void reasons(
            JsonGenerator json, List<FailureReason> reasons, Run run, @Nullable EarlierRuns earlier) {
        IdentityHashMap<Object, Integer> numbers = numbers(run);
        json.writeArrayPropertyStart("reasons");
        for (FailureReason reason : reasons) {
            json.writeStartObject();
            json.writeStringProperty("id", reason.id());
            json.writeStringProperty("title", reason.title());
            json.writeStringProperty("type", reason.type());
            json.writeStringProperty("frame", reason.frame());
            if (reason.evidence() != null) json.writeStringProperty("evidence", reason.evidence());
            ReasonHistory known = earlier == null ? null : earlier.reasons().get(reason.id());
            if (known != null) {
                json.writeStringProperty("since", known.first().started().toString());
                json.writeNumberProperty("runs", known.runs());
            }
            json.writeArrayPropertyStart("tests");
            for (TestResult test : reason.tests()) json.writeNumber(numbers.getOrDefault(test, 0));
            for (ContainerResult container : reason.containers()) json.writeNumber(numbers.getOrDefault(container, 0));
            json.writeEndArray();
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    /** Positions among the rows. */
    private static IdentityHashMap<Object, Integer> numbers(Run run) {
        // By identity: comparing two tests by value compares all that happened in them.
        var numbers = new IdentityHashMap<Object, Integer>();
        for (TestResult test : run.tests()) numbers.put(test, numbers.size());
        for (ContainerResult container : run.brokenContainers()) numbers.put(container, numbers.size());
        return numbers;
    }

    private static void rows(
            JsonGenerator json, List<Row> rows, Run run, List<FailureReason> reasons, @Nullable EarlierRuns earlier) {
        Map<String, Integer> reasonOf = new HashMap<>();
        for (int i = 0; i < reasons.size(); i++) {
            for (TestResult test : reasons.get(i).tests()) reasonOf.put(test.id(), i);
            for (ContainerResult container : reasons.get(i).containers())
                reasonOf.put(Row.idOfContainer(container.key()), i);
        }
        var dataSets = new DataSets(rows);
        json.writeArrayPropertyStart("rows");
        Map<String, String> lastOf = lastAttempts(rows);
        for (Row row : rows) row(json, row, run, reasonOf.get(row.id()), dataSets, lastOf, earlier);
        json.writeEndArray();
    }

    /** The id of the row that counts, by the key of its test or container. */
    private static Map<String, String> lastAttempts(List<Row> rows) {
        Map<String, String> ids = new HashMap<>();
        for (Row row : rows) if (!row.superseded()) ids.put(row.key(), row.id());
        return ids;
    }

    /** What it was not run because of, as far as there is a row of it. */
    private static List<String> blockers(Row row, Map<String, String> lastOf) {
        return row.blockedBy().stream()
                .map(key -> lastOf.getOrDefault(key, lastOf.get(Row.idOfContainer(key))))
                .filter(Objects::nonNull)
                .toList();
    }

    private static void row(
            JsonGenerator json,
            Row row,
            Run run,
            @Nullable Integer reason,
            DataSets dataSets,
            Map<String, String> lastOf,
            @Nullable EarlierRuns earlier) {
        json.writeStartObject();
        json.writeStringProperty("id", row.id());
        if (!row.isTest()) json.writeBooleanProperty("container", true);
        json.writeStringProperty("name", row.name());
        texts(json, "path", row.path());
        if (row.className() != null) json.writeStringProperty("className", row.className());
        if (row.source() != null) json.writeStringProperty("source", row.source());
        if (!row.tags().isEmpty()) texts(json, "tags", row.tags());
        json.writeStringProperty("outcome", row.outcome().word());
        json.writeNumberProperty("at", micros(Duration.between(run.started(), row.started())));
        json.writeNumberProperty("duration", micros(row.duration()));
        json.writeStringProperty("worker", row.worker());
        if (row.thread() != null) json.writeStringProperty("thread", row.thread());
        String message = message(row);
        if (message != null) json.writeStringProperty("message", message);
        if (row.attempts() > 1) json.writeNumberProperty("attempts", row.attempts());
        if (row.superseded()) json.writeBooleanProperty("superseded", true);
        if (row.recovered()) json.writeBooleanProperty("recovered", true);
        about(json, row.about());
        List<String> blockers = blockers(row, lastOf);
        if (!blockers.isEmpty()) texts(json, "blockedBy", blockers);
        if (reason != null) json.writeNumberProperty("reason", reason);
        if (earlier != null && row.isTest() && !row.superseded()) {
            String before = earlier.rows().get(row.key());
            if (before != null) json.writeStringProperty("before", before);
            if (earlier.fresh().contains(row.key())) json.writeBooleanProperty("fresh", true);
        }
        dataSets.write(json, row);
        String data = data(row);
        if (!data.isEmpty()) json.writeStringProperty("data", data);
        json.writeEndObject();
    }

    private static void about(JsonGenerator json, About about) {
        if (about.equals(About.NOTHING)) return;
        json.writeObjectPropertyStart("about");
        if (about.text() != null) json.writeStringProperty("text", about.text());
        if (about.severity() != null) json.writeStringProperty("severity", about.severity());
        if (about.owner() != null) json.writeStringProperty("owner", about.owner());
        json.writeArrayPropertyStart("links");
        for (Link link : about.links()) {
            json.writeStartObject();
            json.writeStringProperty("name", link.name());
            // Journals come from anywhere, and a link may be clicked: only addresses that a browser merely visits.
            if (link.address() != null && link.address().matches("(?i)https?://.*"))
                json.writeStringProperty("address", link.address());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    /** One line: the whole is in the test's own file. */
    private static @Nullable String message(Row row) {
        Failure failure = row.failure();
        if (row.reason() != null) return Texts.cut(row.reason(), LONGEST_MESSAGE);
        if (failure != null) return FailureTitle.of(failure);
        if (!row.outcome().equals(Outcome.UNFINISHED)) return null;
        String last = LastMoment.of(row.entries()).sentence();
        return last.isEmpty() ? null : Texts.cut(last, LONGEST_MESSAGE);
    }

    private static String data(Row row) {
        var data = new StringJoiner(" ");
        for (Entry entry : row.entries())
            if (entry instanceof Entry.DataEntry named && data.length() < LONGEST_DATA)
                data.add(named.name() + "=" + Texts.cut(named.value(), LONGEST_MESSAGE));
        return data.toString();
    }

    private static void texts(JsonGenerator json, String name, List<String> texts) {
        json.writeArrayPropertyStart(name);
        for (String text : texts) json.writeString(text);
        json.writeEndArray();
    }

    static long micros(Duration duration) {
        return duration.toNanos() / 1_000;
    }
}
