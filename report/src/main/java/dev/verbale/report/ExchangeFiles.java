package dev.verbale.report;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Outcome;
import dev.verbale.results.Entry;
import dev.verbale.results.Entry.CheckEntry;
import dev.verbale.results.Run;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/**
 * All exchanges of a run in one list, short: the page computes from it how each endpoint did. In files of so many, for a run
 * of 100,000 tests has a million.
 */
final class ExchangeFiles {

    static final int CHUNK = 20_000;

    private record Line(int row, Entry.ExchangeEntry exchange, long failedChecks) {}

    private final Run run;
    private final List<Line> lines = new ArrayList<>();

    ExchangeFiles(Run run, List<Row> rows) {
        this.run = run;
        for (int i = 0; i < rows.size(); i++)
            add(i, rows.get(i).entries(), rows.get(i).checks());
        add(-1, run.entries(), Map.of());
    }

    private void add(int row, List<Entry> entries, Map<Integer, List<CheckEntry>> checks) {
        for (Entry.ExchangeEntry exchange : Entry.ExchangeEntry.in(entries))
            lines.add(new Line(row, exchange, failed(checks.get(exchange.made().id()))));
    }

    private static long failed(@Nullable List<CheckEntry> checks) {
        if (checks == null) return 0;
        return checks.stream()
                .filter(check -> !check.outcome().equals(Outcome.PASSED))
                .count();
    }

    int count() {
        return lines.size();
    }

    void write(Path data) throws IOException {
        if (lines.isEmpty()) return;
        Path folder = Files.createDirectories(data.resolve("exchanges"));
        for (int from = 0; from < lines.size(); from += CHUNK) {
            List<Line> some = lines.subList(from, Math.min(lines.size(), from + CHUNK));
            String name = String.valueOf(from / CHUNK);
            ScriptFile.write(folder.resolve(name + ".js"), "exchanges", name, json -> {
                json.writeStartArray();
                for (Line line : some) line(json, line);
                json.writeEndArray();
            });
        }
    }

    /**
     * Number of the row, or -1; id in its journal; moment; duration, or -1; method; URL; status, 0 where it was answered without
     * one, -1 where it was not answered; bytes of the response, or -1; failure, or empty; how many checks of it failed.
     */
    private void line(JsonGenerator json, Line line) {
        ExchangeMade made = line.exchange().made();
        ExchangeMade.Response response = made.response();
        ExchangeMade.Body body = response == null ? null : response.body();
        json.writeStartArray();
        json.writeNumber(line.row());
        json.writeNumber(made.id());
        json.writeNumber(
                RunFile.micros(Duration.between(run.started(), line.exchange().at())));
        json.writeNumber(made.timing().micros() == null ? -1 : made.timing().micros());
        json.writeString(made.request().method());
        json.writeString(made.request().url());
        json.writeNumber(response == null ? -1 : made.status());
        json.writeNumber(body == null ? -1 : body.size());
        json.writeString(made.failure() == null ? "" : made.failure());
        json.writeNumber(line.failedChecks());
        json.writeEndArray();
    }
}
