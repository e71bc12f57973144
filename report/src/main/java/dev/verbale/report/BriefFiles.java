package dev.verbale.report;

import dev.verbale.json.WellFormedText;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.brief.BriefOptions;
import dev.verbale.results.brief.FailureBrief;
import dev.verbale.results.element.MissingElement;
import dev.verbale.results.element.NearElement;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.source.SourceSnippet;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import tools.jackson.core.JsonGenerator;

/**
 * {@code data/briefs/N.js}: the failure of the test in row N as text to copy, and what its page had instead of an element that was not
 * found. Loaded when the test is looked at; the shape is {@code Brief} in the page's types.
 */
final class BriefFiles {

    /** A run in which more fail has one reason, and nobody copies the next one. */
    static final int MAX_BRIEFS = 500;

    private static final int LONGEST = 12_000;

    private final Run run;
    private final BriefOptions options;
    private final boolean isGoing;
    private final Map<String, FailureReason> reasonOf;

    BriefFiles(Run run, List<FailureReason> reasons, PageOptions page) {
        this.options = new BriefOptions(
                LONGEST,
                page.content().hasEnvironment(),
                page.code(),
                page.baseline() == null ? Map.of() : BriefOptions.passed(page.baseline()));
        this.isGoing = page.progress() != null;
        this.run = run;
        this.reasonOf = FailureReason.byTest(reasons);
    }

    /** @return the ids of the tests that have one */
    Set<String> write(Path data) throws IOException {
        Path folder = Files.createDirectories(data.resolve("briefs"));
        Set<String> written = new HashSet<>();
        List<TestResult> tests = run.tests();
        for (int i = 0; i < tests.size() && written.size() < MAX_BRIEFS; i++) {
            TestResult test = tests.get(i);
            if (!test.outcome().needsAttention()) continue;
            String name = String.valueOf(i);
            ScriptFile.write(folder.resolve(name + ".js"), "brief", name, json -> brief(json, test));
            written.add(test.id());
        }
        return written;
    }

    /** Of a file only its name: where somebody keeps it is theirs. */
    private static void source(JsonGenerator json, SourceSnippet source) {
        json.writeObjectPropertyStart("source");
        json.writeStringProperty("file", String.valueOf(source.file().getFileName()));
        json.writeNumberProperty("line", source.line());
        json.writeNumberProperty("first", source.first());
        json.writeArrayPropertyStart("lines");
        for (String line : source.lines()) json.writeString(WellFormedText.of(line));
        json.writeEndArray();
        json.writeEndObject();
    }

    private void brief(JsonGenerator json, TestResult test) {
        json.writeStartObject();
        FailureBrief brief = FailureBrief.of(run, test, reasonOf.get(test.id()), options);
        if (isGoing) json.writeStringProperty("id", test.id());
        json.writeStringProperty("text", brief.text());
        if (brief.source() != null) source(json, brief.source());
        MissingElement missing = brief.missing();
        if (missing != null) {
            json.writeStringProperty("locator", missing.locator());
            json.writeArrayPropertyStart("nearest");
            for (NearElement near : missing.nearest()) {
                json.writeStartArray();
                json.writeString(near.selector());
                json.writeString(near.text());
                json.writeString(near.why());
                json.writeEndArray();
            }
            json.writeEndArray();
        }
        json.writeEndObject();
    }
}
