package dev.verbale.report;

import dev.verbale.results.Entry.ExchangeEntry;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.core.JsonGenerator;

/**
 * {@code data/baseline/N.js}: for the rows of {@code data/tests/N.js}, the exchanges that the same tests had in another run, to
 * be compared.
 */
final class BaselineExchanges {

    private final Run baseline;
    private final List<Row> rows;
    private final ExchangeLines lines;
    private final Map<String, List<ExchangeEntry>> byKey = new HashMap<>();

    BaselineExchanges(Run baseline, List<Row> rows, AttachmentCopier attachments) {
        this.baseline = baseline;
        this.rows = rows;
        this.lines = new ExchangeLines(attachments);
        for (TestResult test : baseline.tests())
            byKey.put(test.key(), ExchangeEntry.in(test.entries())); // the last attempt stays
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
                for (Row row : some) exchanges(json, row);
                json.writeEndArray();
            });
        }
    }

    private void exchanges(JsonGenerator json, Row row) throws IOException {
        json.writeStartArray();
        for (ExchangeEntry exchange : byKey.getOrDefault(row.key(), List.of()))
            lines.writeAlone(json, exchange, baseline.started());
        json.writeEndArray();
    }
}
