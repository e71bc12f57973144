package dev.verbale.export;

import dev.verbale.json.JsonOut;
import dev.verbale.results.Counts;
import dev.verbale.results.DurationText;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import tools.jackson.core.JsonGenerator;

/**
 * What a run came to, for scripts: one JSON object by {@code docs/summary.schema.json}. Tests that passed at once are counted, and not
 * listed.
 *
 * @since 0.2.0
 */
public final class JsonSummary {

    private static final int FORMAT = 1;

    private JsonSummary() {}

    /**
     * Writes {@code run} to {@code out}, which stays open.
     *
     * @throws IOException where it cannot be written
     */
    public static void write(Run run, OutputStream out) throws IOException {
        List<FailureReason> reasons = FailureReason.of(run);
        Map<String, FailureReason> reasonOf = FailureReason.byTest(reasons);
        JsonGenerator json = JsonOut.generator(out);
        json.writeStartObject();
        json.writeNumberProperty("format", FORMAT);
        json.writeStringProperty("run", run.name());
        json.writeStringProperty("started", run.started().toString());
        json.writeNumberProperty("millis", run.duration().toMillis());
        json.writeStringProperty("duration", DurationText.of(run.duration()));
        json.writeStringProperty("sentence", Headline.of(run, reasons));
        Counts counts = run.counts();
        json.writeNumberProperty("tests", counts.all());
        json.writeNumberProperty("needingAttention", counts.needingAttention());
        json.writeNumberProperty("broken", counts.broken());
        json.writeNumberProperty("flaky", counts.flaky());
        json.writeBooleanProperty("complete", run.incomplete().isNothing());
        json.writeObjectPropertyStart("outcomes");
        counts.byOutcome().forEach((outcome, count) -> json.writeNumberProperty(outcome.word(), count));
        json.writeEndObject();
        json.writeObjectPropertyStart("facts");
        new TreeMap<>(run.facts()).forEach(json::writeStringProperty);
        json.writeEndObject();
        json.writeArrayPropertyStart("reasons");
        for (FailureReason reason : reasons) {
            json.writeStartObject();
            json.writeStringProperty("id", reason.id());
            json.writeStringProperty("title", reason.title());
            if (reason.evidence() != null) json.writeStringProperty("evidence", reason.evidence());
            json.writeNumberProperty("tests", reason.tests().size());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayPropertyStart("listed");
        for (TestResult test : run.tests())
            if (!test.superseded() && (test.outcome().needsAttention() || test.recovered())) test(json, test, reasonOf);
        json.writeEndArray();
        json.writeEndObject();
        json.flush();
        out.write('\n');
    }

    private static void test(JsonGenerator json, TestResult test, Map<String, FailureReason> reasonOf) {
        json.writeStartObject();
        json.writeStringProperty("key", test.key());
        json.writeStringProperty("name", test.name());
        json.writeArrayPropertyStart("path");
        for (String name : test.path()) json.writeString(name);
        json.writeEndArray();
        json.writeStringProperty("outcome", test.outcome().word());
        json.writeNumberProperty("attempts", test.attempt().number());
        json.writeNumberProperty("millis", test.duration().toMillis());
        FailureReason reason = reasonOf.get(test.id());
        if (reason != null) json.writeStringProperty("reason", reason.id());
        json.writeEndObject();
    }
}
