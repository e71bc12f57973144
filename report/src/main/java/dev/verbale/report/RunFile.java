package dev.verbale.report;

import dev.verbale.event.FactStated;
import dev.verbale.history.ReasonHistory;
import dev.verbale.history.RunSummary;
import dev.verbale.history.compare.Comparison;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.RunPart;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import dev.verbale.results.Worker;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/** {@code data/run.js}: what the page shows first. Its shape is {@code RunData} in the page's types, without its rows. */
final class RunFile {

    private static final int SLOWEST = 5;
    private static final int LONGEST_NAME = 100;
    private static final int FLAKY = 8;
    private static final int TESTS_OF_A_REASON = 8;

    /** Each is some lines high: a run with thousands has them all in the list of tests. */
    private static final int REASONS = 20;

    private final Run run;
    private final List<Row> rows;
    private final List<FailureReason> reasons;
    /** By key, those with the most frequent reason first. */
    private final Map<String, String> whyFlaky = new LinkedHashMap<>();

    private final @Nullable EarlierRuns earlier;
    private final @Nullable Comparison news;
    private final PageOptions options;
    private final RulesOfTests rules;

    RunFile(
            Run run,
            List<Row> rows,
            List<FailureReason> reasons,
            List<FailureReason> flaky,
            @Nullable EarlierRuns earlier,
            @Nullable Comparison news,
            RulesOfTests rules,
            PageOptions options) {
        this.run = run;
        this.rows = rows;
        this.reasons = reasons;
        for (FailureReason reason : flaky)
            for (TestResult attempt : reason.tests()) whyFlaky.put(attempt.key(), reason.title());
        this.earlier = earlier;
        this.news = news;
        this.options = options;
        this.rules = rules;
    }

    /**
     * @param exchanges how many the page has
     * @param baseline null for none
     */
    void write(int exchanges, @Nullable BaselineTests baseline, Path data) throws IOException {
        List<Row> counted = rows.stream().filter(RunFile::counts).toList();
        ScriptFile.write(data.resolve("run.js"), "run", null, json -> {
            json.writeStartObject();
            json.writeStringProperty("name", run.name());
            json.writeStringProperty("started", run.started().toString());
            json.writeNumberProperty("duration", micros(run.duration()));
            json.writeStringProperty("sentence", sentence());
            if (!run.incomplete().isNothing())
                json.writeStringProperty("incomplete", run.incomplete().sentence());
            json.writeNumberProperty("chunk", TestFiles.CHUNK);
            json.writeNumberProperty("rowFiles", RowFiles.count(rows));
            json.writeNumberProperty("tests", counted.size());
            json.writeNumberProperty("overhead", run.overhead());
            json.writeNumberProperty("exchanges", exchanges);
            if (baseline != null) json.writeStringProperty("baseline", baseline.name());
            if (earlier != null) {
                json.writeObjectPropertyStart("earlier");
                json.writeNumberProperty("runs", earlier.list().size());
                json.writeStringProperty("last", earlier.last().toString());
                runs(json, earlier);
                json.writeEndObject();
            }
            if (news != null) news(json, news);
            if (options.projectPages() != null) json.writeStringProperty("projectPages", options.projectPages());
            String part = RunPart.of(run.facts());
            if (!part.isEmpty()) json.writeStringProperty("part", part);
            String leftOut = run.facts().getOrDefault(FactStated.LEFT_OUT, "");
            if (!leftOut.isEmpty()) json.writeStringProperty("leftOut", leftOut);
            if (options.progress() != null) progress(json, options.progress());
            counts(json, run);
            outside(json, run);
            if (options.content().hasEnvironment()) facts(json, run);
            ContractOperations.write(json, run);
            look(json, options.look());
            workers(json, run);
            problems(json, run);
            rules.write(json);
            reasons(json);
            slowest(json, counted);
            flaky(json, counted);
            TimeSlices.write(json, rows, run.started(), run.duration());
            SummaryTables.write(json, counted);
            json.writeEndObject();
        });
    }

    /** How many failures are new, and beside what. */
    private static void news(JsonGenerator json, Comparison news) {
        json.writeObjectPropertyStart("news");
        json.writeNumberProperty(
                "tests", news.newFailures().size() + news.newlyBroken().size());
        int flaky = news.newOfFlaky().size();
        if (flaky > 0) json.writeNumberProperty("flaky", flaky);
        if (!news.slower().isEmpty())
            json.writeNumberProperty("slower", news.slower().size());
        json.writeStringProperty("run", news.before().run());
        json.writeStringProperty("started", news.before().started().toString());
        json.writeStringProperty("branch", news.before().branch());
        json.writeEndObject();
    }

    private String sentence() {
        PageProgress going = options.progress();
        return going == null
                ? Headline.withoutGaps(run, reasons)
                : going.progress().sentence(reasons);
    }

    private void progress(JsonGenerator json, PageProgress going) {
        json.writeObjectPropertyStart("progress");
        json.writeNumberProperty("number", going.number());
        json.writeNumberProperty("share", going.progress().share(going.expected()));
        json.writeNumberProperty("tests", going.expected().tests());
        json.writeNumberProperty("duration", micros(going.expected().duration()));
        json.writeArrayPropertyStart("running");
        for (TestResult test : going.progress().running()) {
            json.writeStartArray();
            json.writeString(test.name());
            json.writeString(test.path().isEmpty() ? "" : test.path().get(0));
            json.writeNumber(micros(Duration.between(run.started(), test.started())));
            json.writeString(test.worker());
            json.writeEndArray();
        }
        json.writeEndArray();
        json.writeEndObject();
    }

    private static void runs(JsonGenerator json, EarlierRuns earlier) {
        json.writeArrayPropertyStart("list");
        for (RunSummary one : earlier.list()) {
            json.writeStartArray();
            json.writeString(one.name());
            json.writeString(one.started().toString());
            json.writeNumber(one.tests());
            json.writeNumber(one.needingAttention());
            json.writeNumber(micros(one.duration()));
            json.writeString(one.commit());
            json.writeEndArray();
        }
        json.writeEndArray();
    }

    private static void look(JsonGenerator json, PageLook look) {
        if (look.title() != null) json.writeStringProperty("title", look.title());
        if (look.subtitle() != null) json.writeStringProperty("subtitle", look.subtitle());
        if (look.logo() != null) json.writeStringProperty("logo", look.logo());
    }

    private static void counts(JsonGenerator json, Run run) {
        json.writeObjectPropertyStart("counts");
        run.counts().byOutcome().forEach((outcome, count) -> json.writeNumberProperty(outcome.word(), count));
        json.writeEndObject();
    }

    /** What the sentence says of it, for the page's other language. */
    private static void outside(JsonGenerator json, Run run) {
        json.writeArrayPropertyStart("broken");
        for (ContainerResult broken : run.brokenContainers()) {
            json.writeStartArray();
            json.writeString(Texts.cut(broken.name(), LONGEST_NAME));
            json.writeNumber(broken.notRun());
            json.writeEndArray();
        }
        json.writeEndArray();
        json.writeNumberProperty("outside", run.failedOutsideTests().size());
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

    private static boolean counts(Row row) {
        return row.isTest() && !row.superseded();
    }

    private void reasons(JsonGenerator json) {
        Map<String, Row> byId = new HashMap<>();
        for (Row row : rows) if (row.outcome().needsAttention()) byId.put(row.id(), row);
        json.writeArrayPropertyStart("reasons");
        for (int i = 0; i < reasons.size(); i++) {
            json.writeStartObject();
            json.writeStringProperty("title", reasons.get(i).title()); // which the list of tests groups by
            if (i < REASONS) whole(json, reasons.get(i), byId);
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void whole(JsonGenerator json, FailureReason reason, Map<String, Row> byId) {
        json.writeStringProperty("id", reason.id());
        json.writeStringProperty("type", reason.type());
        json.writeStringProperty("frame", reason.frame());
        if (reason.evidence() != null) json.writeStringProperty("evidence", reason.evidence());
        rules.write(json, reason);
        ReasonHistory known = earlier == null ? null : earlier.reasons().get(reason.id());
        if (known != null && known.since() != null) {
            json.writeStringProperty("since", known.since().started().toString());
            json.writeNumberProperty("runs", known.stretch());
        } else if (known != null)
            json.writeStringProperty("seen", known.last().started().toString());
        List<String> ids = new ArrayList<>();
        for (TestResult test : reason.tests()) ids.add(test.id());
        for (ContainerResult container : reason.containers()) ids.add(Row.idOfContainer(container.key()));
        json.writeNumberProperty("tests", ids.size());
        screenshot(json, reason.tests());
        json.writeArrayPropertyStart("first");
        for (String id : ids.subList(0, Math.min(TESTS_OF_A_REASON, ids.size()))) {
            Row row = byId.get(id);
            if (row == null) continue;
            shown(json, row);
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    /** What the browser showed at last in the first of them that has such an image. */
    private void screenshot(JsonGenerator json, List<TestResult> tests) {
        TestScreenshot first = TestScreenshot.first(tests);
        if (first == null) return;
        json.writeArrayPropertyStart("screenshot");
        json.writeString(first.address(run.folder()));
        json.writeString(first.test().id());
        json.writeString(first.test().name());
        json.writeEndArray();
    }

    /** A row as the summary shows it: an object that the caller ends. */
    private static void shown(JsonGenerator json, Row row) {
        json.writeStartObject();
        json.writeStringProperty("id", row.id());
        json.writeStringProperty("name", row.name());
        json.writeStringProperty("outcome", row.outcome().word());
        if (!row.path().isEmpty()) json.writeStringProperty("in", row.path().get(0));
    }

    private static void slowest(JsonGenerator json, List<Row> counted) {
        json.writeArrayPropertyStart("slowest");
        counted.stream()
                .sorted(Comparator.comparing(Row::duration).reversed())
                .limit(SLOWEST)
                .forEach(row -> {
                    shown(json, row);
                    json.writeNumberProperty("duration", micros(row.duration()));
                    json.writeEndObject();
                });
        json.writeEndArray();
    }

    /** The tests that passed on a later attempt only, by why they had not. */
    private void flaky(JsonGenerator json, List<Row> counted) {
        Map<String, Integer> order = new HashMap<>();
        for (String key : whyFlaky.keySet()) order.put(key, order.size());
        List<Row> flaky = counted.stream()
                .filter(Row::recovered)
                .sorted(Comparator.comparingInt(row -> order.getOrDefault(row.key(), order.size())))
                .toList();
        json.writeNumberProperty("allFlaky", flaky.size());
        json.writeArrayPropertyStart("flaky");
        for (Row row : flaky.subList(0, Math.min(FLAKY, flaky.size()))) {
            shown(json, row);
            json.writeNumberProperty("attempts", row.attempts());
            String why = whyFlaky.get(row.key());
            if (why != null) json.writeStringProperty("why", Texts.cut(why, LONGEST_NAME));
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    static long micros(Duration duration) {
        return duration.toNanos() / 1_000;
    }
}
