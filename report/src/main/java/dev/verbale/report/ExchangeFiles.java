package dev.verbale.report;

import dev.verbale.report.TestDrafts.Draft;
import dev.verbale.results.Run;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/**
 * All exchanges of a run in one list, short: the page computes from it how each endpoint did. In files of so many, for a run
 * of 100,000 tests has a million.
 */
final class ExchangeFiles {

    static final int CHUNK = 20_000;

    private final List<Row> rows;
    private final TestDrafts drafts;
    private final ExchangeRows outside;
    private final int count;

    ExchangeFiles(Run run, List<Row> rows, TestDrafts drafts) throws IOException {
        this.rows = rows;
        this.drafts = drafts;
        this.outside = new ExchangeRows(run.started());
        outside.add(run.entries(), Map.of());
        this.count = rows.stream().mapToInt(row -> row.draft().lines()).sum() + outside.count();
    }

    int count() {
        return count;
    }

    void write(Path data) throws IOException {
        if (count == 0) return;
        Path folder = Files.createDirectories(data.resolve("exchanges"));
        var lines = new Lines();
        for (int file = 0; file * CHUNK < count; file++) {
            String name = String.valueOf(file);
            int some = Math.min(CHUNK, count - file * CHUNK);
            ScriptFile.writeText(folder.resolve(name + ".js"), "exchanges", name, out -> {
                for (int i = 0; i < some; i++) {
                    out.write(i == 0 ? '[' : ',');
                    lines.next(out);
                }
                out.write(']');
            });
        }
    }

    /** Goes through all of them, those of the run last. */
    private final class Lines {
        private byte[] bytes = new byte[0];
        private int at;
        private int row = -1;

        private void next(OutputStream out) throws IOException {
            while (at == bytes.length) nextRow();
            at = ExchangeRows.write(bytes, at, row == rows.size() ? -1 : row, out);
        }

        private void nextRow() throws IOException {
            row++;
            at = 0;
            if (row == rows.size()) bytes = outside.bytes();
            else {
                Draft draft = rows.get(row).draft();
                bytes = draft.lines() == 0 ? new byte[0] : drafts.exchanges(draft);
            }
        }
    }
}
