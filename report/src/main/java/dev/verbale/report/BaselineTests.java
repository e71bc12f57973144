package dev.verbale.report;

import dev.verbale.results.Run;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * {@code data/baseline/N.js}: for the rows of {@code data/tests/N.js}, the same tests in another run, to be compared. Null for one that
 * was not there.
 */
final class BaselineTests {

    private final Run baseline;
    private final TestFiles files;

    /** @param rows of the page's own run */
    BaselineTests(Run baseline, List<Row> rows, AttachmentCopier attachments, PageOptions options) {
        this.baseline = baseline;
        Map<String, Row> byKey = new HashMap<>();
        for (Row row : Row.of(baseline, options.content())) byKey.put(row.key(), row); // the last attempt stays
        List<@Nullable Row> same = new ArrayList<>(rows.size());
        for (Row row : rows) same.add(byKey.get(row.key()));
        this.files = new TestFiles(baseline, same, attachments, options);
    }

    String name() {
        return baseline.name();
    }

    void write(Path data) throws IOException {
        files.writeRows(data, TestFiles.BASELINE);
    }
}
