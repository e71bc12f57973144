package dev.verbale.report;

import dev.verbale.results.Run;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/**
 * {@code data/tests/N.js}: what happened in tests, {@value #CHUNK} a file, loaded when one of them is looked at. And {@code run.js}
 * beside them: what happened outside tests.
 */
final class TestFiles {

    /** A file a test would be 100,000 small files; one for all, a page that hangs before it shows anything. */
    static final int CHUNK = 40;

    private final Run run;
    private final List<Row> rows;
    private final TestWriter writer;

    /** @param writer for what happened outside tests */
    TestFiles(Run run, List<Row> rows, TestWriter writer) {
        this.run = run;
        this.rows = rows;
        this.writer = writer;
    }

    void write(TestDrafts drafts, Path data) throws IOException {
        Path folder = Files.createDirectories(data.resolve("tests"));
        for (int from = 0; from < rows.size(); from += CHUNK) {
            List<Row> some = rows.subList(from, Math.min(rows.size(), from + CHUNK));
            String name = String.valueOf(from / CHUNK);
            ScriptFile.writeText(folder.resolve(name + ".js"), "tests", name, out -> {
                for (int i = 0; i < some.size(); i++) {
                    out.write(i == 0 ? '[' : ',');
                    out.write(drafts.test(some.get(i).draft()));
                }
                out.write(']');
            });
        }
        ScriptFile.write(folder.resolve("run.js"), "tests", "run", json -> {
            json.writeStartArray();
            writer.writeOutside(json, run);
            json.writeEndArray();
        });
    }
}
