package dev.verbale.report;

import dev.verbale.event.ExchangeMade;
import dev.verbale.results.Entry;
import dev.verbale.results.Entry.CheckEntry;
import dev.verbale.vocabulary.Outcome;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;

/** Exchanges as they stand in the page's list of them, a line each, but for the row of their test, which is known later. */
final class ExchangeRows {

    private final Instant start;
    private final JsonBytes lines = new JsonBytes();
    private final ByteArrayOutputStream bytes = new ByteArrayOutputStream(0);
    private int count;

    /** @param start from which moments are counted */
    ExchangeRows(Instant start) {
        this.start = start;
    }

    /** @param checks what was checked of each, by its id */
    void add(List<Entry> entries, Map<Integer, List<CheckEntry>> checks) throws IOException {
        for (Entry.ExchangeEntry exchange : Entry.ExchangeEntry.in(entries)) {
            byte[] line = lines.of(json ->
                    write(json, exchange, failed(checks.get(exchange.made().id()))));
            bytes.write(line, 1, line.length - 1); // without the bracket: the row comes first
            bytes.write('\n');
            count++;
        }
    }

    private static long failed(@Nullable List<CheckEntry> checks) {
        if (checks == null) return 0;
        return checks.stream()
                .filter(check -> !check.outcome().equals(Outcome.PASSED))
                .count();
    }

    /**
     * Id in its journal; moment; duration, or -1; method; URL; status, 0 where it was answered without one, -1 where it was not
     * answered; bytes of the response, or -1; failure, or empty; how many checks of it failed.
     */
    private void write(JsonGenerator json, Entry.ExchangeEntry exchange, long failedChecks) {
        ExchangeMade made = exchange.made();
        ExchangeMade.Response response = made.response();
        ExchangeMade.Body body = response == null ? null : response.body();
        json.writeStartArray();
        json.writeNumber(made.id());
        json.writeNumber(RunFile.micros(Duration.between(start, exchange.at())));
        json.writeNumber(made.timing().micros() == null ? -1 : made.timing().micros());
        json.writeString(made.request().method());
        json.writeString(made.request().url());
        json.writeNumber(response == null ? -1 : made.status());
        json.writeNumber(body == null ? -1 : body.size());
        json.writeString(made.failure() == null ? "" : made.failure());
        json.writeNumber(failedChecks);
        json.writeEndArray();
    }

    int count() {
        return count;
    }

    byte[] bytes() {
        return bytes.toByteArray();
    }

    /**
     * Writes the line of {@code bytes} that begins at index {@code from}.
     *
     * @param row of its test; -1 for none
     * @return where the next one begins
     */
    static int write(byte[] bytes, int from, int row, OutputStream out) throws IOException {
        int to = from;
        while (bytes[to] != '\n') to++;
        out.write(("[" + row + ",").getBytes(StandardCharsets.US_ASCII));
        out.write(bytes, from, to - from);
        return to + 1;
    }
}
