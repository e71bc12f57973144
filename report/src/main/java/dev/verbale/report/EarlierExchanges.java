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
 * {@code data/earlier/N.js}: for the rows of the minutes' file N, the exchanges that the same tests had in an earlier run, to
 * be compared.
 */
final class EarlierExchanges {

    private final Run earlier;
    private final List<Row> rows;
    private final ExchangeLines lines;
    private final Map<String, List<ExchangeEntry>> byKey = new HashMap<>();

    EarlierExchanges(Run earlier, List<Row> rows, PaperShelf papers) {
        this.earlier = earlier;
        this.rows = rows;
        this.lines = new ExchangeLines(papers);
        for (TestResult test : earlier.tests())
            byKey.put(test.key(), ExchangeEntry.in(test.entries())); // the last execution stays
    }

    String name() {
        return earlier.name();
    }

    void write(Path data) throws IOException {
        Path folder = Files.createDirectories(data.resolve("earlier"));
        for (int from = 0; from < rows.size(); from += MinutesFiles.CHUNK) {
            List<Row> some = rows.subList(from, Math.min(rows.size(), from + MinutesFiles.CHUNK));
            String name = String.valueOf(from / MinutesFiles.CHUNK);
            ScriptFile.write(folder.resolve(name + ".js"), "earlier", name, json -> {
                json.writeStartArray();
                for (Row row : some) exchanges(json, row);
                json.writeEndArray();
            });
        }
    }

    private void exchanges(JsonGenerator json, Row row) throws IOException {
        json.writeStartArray();
        for (ExchangeEntry exchange : byKey.getOrDefault(row.key(), List.of()))
            lines.writeAlone(json, exchange, earlier.started());
        json.writeEndArray();
    }
}
