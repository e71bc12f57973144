package dev.verbale.viewer;

import dev.verbale.history.RunSummary;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.json.WallClockText;
import dev.verbale.results.Run;
import dev.verbale.results.RunTags;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;

/**
 * What a list of runs says of one.
 *
 * @param problems what went wrong in recording or reading it
 * @param tags by which it is found
 * @param marks of slices of its time that are alike, the outcome of a test that began in each that most asks for somebody's look; null
 *     where none began
 * @since 0.2.0
 */
public record RunRow(RunSummary summary, int flaky, int problems, List<String> tags, List<@Nullable Outcome> marks) {

    private static final int SLICES = 60;

    public RunRow {
        tags = List.copyOf(tags);
        marks = Collections.unmodifiableList(new ArrayList<>(marks));
    }

    /** Of a run of which at least the ends of its tests were kept. */
    public static RunRow of(Run run) {
        RunSummary summary = RunSummary.of(RunDigest.of(run, List.of()));
        return new RunRow(summary, run.flaky().size(), run.problems().size(), RunTags.of(run.facts()), marks(run));
    }

    private static List<@Nullable Outcome> marks(Run run) {
        List<@Nullable Outcome> marks = new ArrayList<>(Collections.nCopies(SLICES, null));
        long whole = Math.max(1, run.duration().toNanos());
        for (TestResult test : run.tests()) {
            if (test.superseded()) continue;
            long at = Duration.between(run.started(), test.course().started()).toNanos();
            int slice = (int) Math.max(0, Math.min(SLICES - 1, at * SLICES / whole));
            Outcome there = marks.get(slice);
            if (there == null || !there.needsAttention() && test.outcome().needsAttention())
                marks.set(slice, test.outcome());
        }
        return marks;
    }

    /**
     * The cells of a table's row, in HTML.
     *
     * @param address where its page is
     * @param list where the list is that a tag leads to; null where tags lead nowhere
     */
    public String cells(String address, @Nullable String list) {
        return ListPage.cells(summary.name(), this, ListPage.how(this), address, list);
    }

    /** Writes it as an object of JSON. */
    public void write(JsonGenerator json) {
        json.writeStartObject();
        json.writeStringProperty("name", summary.name());
        json.writeStringProperty("started", WallClockText.of(summary.started()));
        json.writeNumberProperty("millis", summary.duration().toMillis());
        json.writeStringProperty("branch", summary.branch());
        json.writeStringProperty("commit", summary.commit());
        json.writeNumberProperty("tests", summary.tests());
        json.writeNumberProperty("needingAttention", summary.needingAttention());
        json.writeStringProperty("part", summary.part());
        json.writeBooleanProperty("complete", summary.isComplete());
        json.writeBooleanProperty("madeUp", summary.isMadeUp());
        json.writeNumberProperty("flaky", flaky);
        json.writeNumberProperty("problems", problems);
        json.writeArrayPropertyStart("tags");
        for (String tag : tags) json.writeString(tag);
        json.writeEndArray();
        json.writeArrayPropertyStart("marks");
        for (Outcome mark : marks) json.writeString(mark == null ? "" : mark.word());
        json.writeEndArray();
        json.writeEndObject();
    }

    /** What {@link #write} wrote, where the parser stands at its beginning; of what is missing, that nobody said it. */
    public static RunRow read(JsonParser json) {
        var read = new Read();
        for (String field = json.nextName(); field != null; field = json.nextName()) {
            json.nextToken();
            read.field(field, json);
        }
        return read.row();
    }

    private static final class Read {
        private String name = "";
        private Instant started = Instant.EPOCH;
        private long millis;
        private String branch = "";
        private String commit = "";
        private int tests;
        private int attention;
        private String part = "";
        private boolean isComplete;
        private boolean isMadeUp;
        private int flaky;
        private int problems;
        private final List<String> tags = new ArrayList<>();
        private final List<@Nullable Outcome> marks = new ArrayList<>();

        private void field(String field, JsonParser json) {
            switch (field) {
                case "name" -> name = String.valueOf(json.getString());
                case "started" -> started = WallClockText.read(String.valueOf(json.getString()));
                case "millis" -> millis = json.getLongValue();
                case "branch" -> branch = String.valueOf(json.getString());
                case "commit" -> commit = String.valueOf(json.getString());
                case "tests" -> tests = json.getIntValue();
                case "needingAttention" -> attention = json.getIntValue();
                case "part" -> part = String.valueOf(json.getString());
                case "complete" -> isComplete = json.getBooleanValue();
                case "madeUp" -> isMadeUp = json.getBooleanValue();
                case "flaky" -> flaky = json.getIntValue();
                case "problems" -> problems = json.getIntValue();
                case "tags" -> texts(json).forEach(tags::add);
                case "marks" -> texts(json).forEach(word -> marks.add(word.isEmpty() ? null : Outcome.ofWord(word)));
                default -> json.skipChildren();
            }
        }

        private static List<String> texts(JsonParser json) {
            List<String> texts = new ArrayList<>();
            while (json.nextToken() != JsonToken.END_ARRAY && json.currentToken() != null) {
                if (texts.size() < 1_000) texts.add(String.valueOf(json.getString()));
            }
            return texts;
        }

        private RunRow row() {
            return new RunRow(
                    new RunSummary(
                            name,
                            started,
                            Duration.ofMillis(millis),
                            branch,
                            commit,
                            tests,
                            attention,
                            part,
                            isComplete,
                            isMadeUp),
                    flaky,
                    problems,
                    tags,
                    marks);
        }
    }
}
