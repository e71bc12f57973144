package dev.verbale.report;

import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import dev.verbale.event.TestDescribed.Link;
import dev.verbale.results.About;
import dev.verbale.results.Cause;
import dev.verbale.results.Entry;
import dev.verbale.results.Headline;
import dev.verbale.results.LastMoment;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.Worker;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.StringJoiner;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/** {@code data/run.js}: what the page knows as soon as it opens. Its shape is {@code RunData} in the page's types. */
final class RunFile {

    private static final int LONGEST_SAID = 500;
    private static final int LONGEST_DATA = 4_000;

    private RunFile() {}

    static void write(Run run, List<Row> rows, int exchanges, @Nullable EarlierExchanges earlier, Path file)
            throws IOException {
        List<Cause> causes = Cause.of(run);
        ScriptFile.write(file, "run", null, json -> {
            json.writeStartObject();
            json.writeStringProperty("name", run.name());
            json.writeStringProperty("started", run.started().toString());
            json.writeNumberProperty("took", micros(run.took()));
            json.writeStringProperty("sentence", Headline.withoutGaps(run));
            if (!run.incomplete().isNothing())
                json.writeStringProperty("incomplete", run.incomplete().sentence());
            json.writeNumberProperty("chunk", MinutesFiles.CHUNK);
            json.writeNumberProperty("cost", run.cost());
            json.writeNumberProperty("exchanges", exchanges);
            if (earlier != null) json.writeStringProperty("earlier", earlier.name());
            counts(json, run);
            facts(json, run);
            workers(json, run);
            problems(json, run);
            causes(json, causes, run);
            rows(json, rows, run, causes);
            json.writeEndObject();
        });
    }

    private static void counts(JsonGenerator json, Run run) {
        json.writeObjectPropertyStart("counts");
        for (Outcome outcome : Outcome.values()) {
            int count = run.counts().of(outcome);
            if (count > 0) json.writeNumberProperty(outcome.word(), count);
        }
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

    private static void causes(JsonGenerator json, List<Cause> causes, Run run) {
        Map<TestResult, Integer> numbers = numbers(run);
        json.writeArrayPropertyStart("causes");
        for (Cause cause : causes) {
            json.writeStartObject();
            json.writeStringProperty("title", cause.title());
            json.writeStringProperty("type", cause.type());
            json.writeStringProperty("place", cause.place());
            json.writeArrayPropertyStart("tests");
            for (TestResult test : cause.tests()) json.writeNumber(numbers.getOrDefault(test, 0));
            json.writeEndArray();
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private static Map<TestResult, Integer> numbers(Run run) {
        // By identity: comparing two tests by value compares all that happened in them.
        Map<TestResult, Integer> numbers = new IdentityHashMap<>();
        for (int i = 0; i < run.tests().size(); i++) numbers.put(run.tests().get(i), i);
        return numbers;
    }

    private static void rows(JsonGenerator json, List<Row> rows, Run run, List<Cause> causes) {
        Map<String, Integer> causeOf = new HashMap<>();
        for (int i = 0; i < causes.size(); i++)
            for (TestResult test : causes.get(i).tests()) causeOf.put(test.address(), i);
        var dataSets = new DataSets(rows);
        json.writeArrayPropertyStart("rows");
        for (Row row : rows) row(json, row, run, causeOf.get(row.address()), dataSets);
        json.writeEndArray();
    }

    private static void row(JsonGenerator json, Row row, Run run, @Nullable Integer cause, DataSets dataSets) {
        json.writeStartObject();
        json.writeStringProperty("address", row.address());
        if (!row.isTest()) json.writeBooleanProperty("container", true);
        json.writeStringProperty("name", row.name());
        texts(json, "path", row.path());
        if (row.className() != null) json.writeStringProperty("className", row.className());
        if (!row.tags().isEmpty()) texts(json, "tags", row.tags());
        json.writeStringProperty("outcome", row.outcome().word());
        json.writeNumberProperty("at", micros(Duration.between(run.started(), row.started())));
        json.writeNumberProperty("took", micros(row.took()));
        json.writeStringProperty("worker", row.worker());
        if (row.thread() != null) json.writeStringProperty("thread", row.thread());
        String said = said(row);
        if (said != null) json.writeStringProperty("said", said);
        if (row.attempts() > 1) json.writeNumberProperty("attempts", row.attempts());
        if (row.superseded()) json.writeBooleanProperty("superseded", true);
        if (row.recovered()) json.writeBooleanProperty("recovered", true);
        about(json, row.about());
        if (cause != null) json.writeNumberProperty("cause", cause);
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

    /** One line: the whole is in the minutes. */
    private static @Nullable String said(Row row) {
        Failure failure = row.failure();
        if (row.reason() != null) return Texts.cut(row.reason(), LONGEST_SAID);
        if (failure != null) return Cause.title(failure);
        if (row.outcome() != Outcome.UNFINISHED) return null;
        String last = LastMoment.of(row.entries()).sentence();
        return last.isEmpty() ? null : Texts.cut(last, LONGEST_SAID);
    }

    private static String data(Row row) {
        var data = new StringJoiner(" ");
        for (Entry entry : row.entries())
            if (entry instanceof Entry.DataEntry named && data.length() < LONGEST_DATA)
                data.add(named.name() + "=" + Texts.cut(named.value(), LONGEST_SAID));
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
