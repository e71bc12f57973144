package dev.verbale.export;

import dev.verbale.event.Failure;
import dev.verbale.results.Entry;
import dev.verbale.results.Escaped;
import dev.verbale.results.FailureTitle;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.reason.FailureReason;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/**
 * A run as tables: comma-separated values by RFC 4180, the first row with the names of the columns. What a spreadsheet would take for
 * a formula has an apostrophe before it.
 *
 * @since 0.2.0
 */
public final class CsvTables {

    private CsvTables() {}

    /**
     * A row for each attempt of each test.
     *
     * @throws IOException where it cannot be written
     */
    public static void tests(Run run, Appendable out) throws IOException {
        Map<String, String> reasonOf = new HashMap<>();
        for (FailureReason reason : FailureReason.of(run))
            for (TestResult test : reason.tests()) reasonOf.put(test.id(), reason.id());
        CSVPrinter csv = printer(
                out, "key", "name", "class", "method", "tags", "outcome", "attempt", "counts", "flaky", "started",
                "millis", "worker", "thread", "failure", "message", "reason", "module");
        for (TestResult test : run.tests()) {
            Failure failure = test.failure();
            csv.printRecord(
                    Escaped.cell(test.key()),
                    Escaped.cell(String.join(" › ", test.path()) + (test.path().isEmpty() ? "" : " › ") + test.name()),
                    Escaped.cell(test.className()),
                    Escaped.cell(test.methodName()),
                    Escaped.cell(String.join(" ", test.tags())),
                    test.outcome().word(),
                    test.attempt().number(),
                    !test.superseded(),
                    test.recovered(),
                    test.started(),
                    test.duration().toMillis(),
                    Escaped.cell(test.worker()),
                    Escaped.cell(test.thread()),
                    Escaped.cell(failure == null ? null : failure.type()),
                    Escaped.cell(failure == null ? test.reason() : FailureTitle.of(failure)),
                    reasonOf.getOrDefault(test.id(), ""),
                    Escaped.cell(test.module()));
        }
        csv.flush();
    }

    /**
     * A row for each step of each attempt, outer ones before those in them.
     *
     * @throws IOException where it cannot be written
     */
    public static void steps(Run run, Appendable out) throws IOException {
        CSVPrinter csv = printer(out, "test", "attempt", "depth", "kind", "step", "outcome", "started", "millis");
        for (TestResult test : run.tests()) steps(csv, test, test.entries(), 0);
        csv.flush();
    }

    private static void steps(CSVPrinter csv, TestResult test, List<Entry> entries, int depth) throws IOException {
        for (Entry entry : entries) {
            if (!(entry instanceof Entry.StepEntry step)) continue;
            csv.printRecord(
                    Escaped.cell(test.key()),
                    test.attempt().number(),
                    depth,
                    Escaped.cell(step.kind().word()),
                    Escaped.cell(step.name()),
                    step.outcome().word(),
                    step.at(),
                    step.duration().toMillis());
            steps(csv, test, step.entries(), depth + 1);
        }
    }

    private static CSVPrinter printer(Appendable out, String... columns) throws IOException {
        return new CSVPrinter(
                out, CSVFormat.RFC4180.builder().setHeader(columns).get());
    }
}
