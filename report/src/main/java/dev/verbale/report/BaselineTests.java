package dev.verbale.report;

import dev.verbale.report.TestDrafts.Draft;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Entry;
import dev.verbale.results.ExchangeChecks;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * {@code data/baseline/N.js}: for the rows of {@code data/tests/N.js}, the same tests in another run, to be compared. Null for one that
 * was not there.
 */
final class BaselineTests {

    private final Run baseline;
    private final List<Row> rows;
    private final TestWriter writer;
    private final PageContent content;
    /** What is there of a test or a container; of several attempts the last. */
    private final Map<String, Object> byKey = new HashMap<>();

    /** @param rows of the page's own run */
    BaselineTests(Run baseline, List<Row> rows, Path page, PageOptions options, SharedTexts texts) {
        this.baseline = baseline;
        this.rows = rows;
        this.content = options.content();
        var attachments = new AttachmentCopier(baseline.folder(), page, "baseline");
        this.writer = new TestWriter(baseline.started(), baseline.ownFrames(), attachments, content, texts);
        for (TestResult test : baseline.tests()) byKey.put(test.key(), test);
        for (ContainerResult container : baseline.brokenContainers())
            byKey.put(Row.idOfContainer(container.key()), container);
    }

    String name() {
        return baseline.name();
    }

    void write(Path data) throws IOException {
        Path folder = Files.createDirectories(data.resolve("baseline"));
        for (int from = 0; from < rows.size(); from += TestFiles.CHUNK) {
            List<Row> some = rows.subList(from, Math.min(rows.size(), from + TestFiles.CHUNK));
            String name = String.valueOf(from / TestFiles.CHUNK);
            ScriptFile.write(folder.resolve(name + ".js"), "baseline", name, json -> {
                json.writeStartArray();
                for (Row row : some) write(json, byKey.get(row.key()));
                json.writeEndArray();
            });
        }
    }

    private void write(JsonGenerator json, @Nullable Object there) throws IOException {
        if (there instanceof TestResult test) {
            boolean isLeftOut = !content.hasDetails(test.outcome());
            Map<Integer, List<Entry.CheckEntry>> checks = isLeftOut ? Map.of() : ExchangeChecks.of(test);
            writer.write(json, Row.of(test, isLeftOut, Draft.NONE), checks, TestWriter.With.END);
        } else if (there instanceof ContainerResult container) {
            writer.write(json, Row.of(container, Draft.NONE), Map.of(), TestWriter.With.END);
        } else {
            json.writeNull();
        }
    }
}
