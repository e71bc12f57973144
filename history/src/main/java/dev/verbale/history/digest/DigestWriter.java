package dev.verbale.history.digest;

import dev.verbale.folder.WholeFile;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.StepTime;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.json.JsonOut;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.zip.GZIPOutputStream;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * Writes digests: JSON Lines, gzipped, so that {@code zcat} shows them. First what is known of the run, then tables of the texts that
 * occur, then a line a test that names them by their position.
 *
 * @since 0.2.0
 */
public final class DigestWriter {

    /** What the first line calls the file. */
    static final String WORD = "verbale-digest";

    static final int FORMAT = 1;

    /** A group of TestNG may have a blank in its name. */
    static final String BETWEEN_TAGS = "\n";

    /** One text: the number of each test's worker, with blanks between, for that is other in each night. */
    static final String WORKERS = "workers";

    private DigestWriter() {}

    /**
     * Writes {@code digest} whole, or leaves what was there: a reader never meets half of it.
     *
     * @throws IOException where it cannot be written; what was there before still is
     */
    public static void write(RunDigest digest, Path file) throws IOException {
        WholeFile.write(file, fresh -> {
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(fresh));
                    var packed = new GZIPOutputStream(out, 1 << 15)) {
                write(digest, packed);
            }
            return true;
        });
    }

    static void write(RunDigest digest, OutputStream out) throws IOException {
        try (JsonGenerator json = JsonOut.generator(out)) {
            head(json, digest);
            var steps = new Table();
            for (TestDigest test : digest.tests()) for (StepTime step : test.steps()) steps.position(step.name());
            table(json, "tests", digest.tests().stream().map(TestDigest::key).toList());
            table(json, "names", digest.tests().stream().map(TestDigest::name).toList());
            origins(json, digest);
            table(json, "steps", steps.texts());
            table(
                    json,
                    "reasons",
                    digest.reasons().stream().map(ReasonDigest::id).toList());
            table(
                    json,
                    "titles",
                    digest.reasons().stream().map(ReasonDigest::title).toList());
            Map<String, Integer> reasons = new HashMap<>();
            for (ReasonDigest reason : digest.reasons()) reasons.putIfAbsent(reason.id(), reasons.size());
            for (TestDigest test : digest.tests()) row(json, test, reasons, steps);
        }
    }

    private static void head(JsonGenerator json, RunDigest digest) {
        json.writeStartObject();
        json.writeNumberProperty(WORD, FORMAT);
        json.writeStringProperty("run", digest.run());
        json.writeStringProperty("started", digest.started().toString());
        json.writeNumberProperty("millis", digest.duration().toMillis());
        if (digest.isMadeUp()) json.writeBooleanProperty("madeUp", true);
        if (!digest.isComplete()) json.writeBooleanProperty("complete", false);
        if (!digest.broken().isEmpty()) {
            json.writeArrayPropertyStart("broken");
            digest.broken().forEach(json::writeString);
            json.writeEndArray();
        }
        json.writeNumberProperty("rows", digest.tests().size());
        json.writeObjectPropertyStart("facts");
        new TreeMap<>(digest.facts()).forEach(json::writeStringProperty);
        json.writeEndObject();
        json.writeEndObject();
        json.writeRaw('\n');
    }

    /** Beside the tests, in their order; empty where there is none. What no test has is left out. */
    private static void origins(JsonGenerator json, RunDigest digest) {
        origin(json, "classes", digest, origin -> origin.className());
        origin(json, "methods", digest, origin -> origin.methodName());
        origin(json, "tags", digest, origin -> String.join(BETWEEN_TAGS, origin.tags()));
        origin(json, "owners", digest, origin -> origin.owner());
        if (digest.tests().stream().anyMatch(test -> test.origin().worker() >= 0))
            table(
                    json,
                    WORKERS,
                    List.of(digest.tests().stream()
                            .map(test -> String.valueOf(test.origin().worker()))
                            .collect(Collectors.joining(" "))));
    }

    private static void origin(
            JsonGenerator json, String name, RunDigest digest, Function<TestDigest.Origin, @Nullable String> part) {
        List<String> texts = digest.tests().stream()
                .map(test -> Objects.requireNonNullElse(part.apply(test.origin()), ""))
                .toList();
        if (texts.stream().anyMatch(text -> !text.isEmpty())) table(json, name, texts);
    }

    private static void table(JsonGenerator json, String name, List<String> texts) {
        json.writeStartObject();
        json.writeArrayPropertyStart(name);
        for (String text : texts) json.writeString(text);
        json.writeEndArray();
        json.writeEndObject();
        json.writeRaw('\n');
    }

    /** Outcome, milliseconds, attempts (negative where it recovered), reason or -1, then step and milliseconds by turns. */
    private static void row(JsonGenerator json, TestDigest test, Map<String, Integer> reasons, Table steps) {
        json.writeStartArray();
        json.writeString(test.outcome().word());
        json.writeNumber(test.millis());
        json.writeNumber(test.recovered() ? -test.attempts() : test.attempts());
        json.writeNumber(test.reason() == null ? -1 : reasons.getOrDefault(test.reason(), -1));
        for (StepTime step : test.steps()) {
            json.writeNumber(steps.position(step.name()));
            json.writeNumber(step.millis());
        }
        json.writeEndArray();
        json.writeRaw('\n');
    }

    /** Texts in the order in which they occurred first. */
    private static final class Table {
        private final Map<String, Integer> positions = new HashMap<>();
        private final List<String> texts = new ArrayList<>();

        private int position(String text) {
            return positions.computeIfAbsent(text, added -> {
                texts.add(added);
                return texts.size() - 1;
            });
        }

        private List<String> texts() {
            return texts;
        }
    }
}
