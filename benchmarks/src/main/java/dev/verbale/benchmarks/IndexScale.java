package dev.verbale.benchmarks;

import dev.verbale.history.HistoryFolder;
import dev.verbale.query.AnswerText;
import dev.verbale.query.AnswerWriting;
import dev.verbale.query.HistoryTables;
import dev.verbale.query.PostgresServer;
import dev.verbale.query.QueryException;
import dev.verbale.query.RunTables;
import dev.verbale.query.TableReader;
import java.io.IOException;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;

/**
 * The tables of many digests of many tests: how long they take to be there, and some questions. {@code bin/bench IndexScale [RUNS] [TESTS]
 * [postgres]}; without arguments 500 runs of 5,000 tests, read from the history's own files.
 */
public final class IndexScale {

    private static final Map<String, String> QUESTIONS = Map.of(
            "count", "select count(*) from tests",
            "one test", "select run, outcome from tests where test = '" + HistoryScale.key(2_500) + "' order by run",
            "reasons", "select * from reasons order by runs desc",
            "failing most",
                    "select test, count(*) as times from tests where needs_attention group by test order by 2 desc fetch first 50 rows only");

    private IndexScale() {}

    /** {@code [RUNS] [TESTS] [postgres]}. */
    public static void main(String[] arguments) throws Exception {
        int runs = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 500;
        int tests = arguments.length > 1 ? Integer.parseInt(arguments[1]) : 5_000;
        Path work = Files.createTempDirectory("index");
        var folder = new HistoryFolder(work.resolve("history"));
        try {
            for (int run = 0; run < runs; run++) folder.add(HistoryScale.digest(run, tests));
            if (arguments.length > 2) {
                inPostgres(folder, runs, tests);
                return;
            }
            for (int turn = 0; turn < 2; turn++) {
                long from = System.nanoTime();
                try (HistoryTables tables =
                        HistoryTables.of(folder.read(problem -> System.out.println(problem.sentence())))) {
                    System.out.printf(
                            "%d runs of %d tests: there in %.2f s%n", runs, tests, HistoryScale.seconds(from));
                    for (int i = 0; i < 2; i++) ask(tables.reader());
                }
            }
        } finally {
            ReadScale.delete(work);
        }
    }

    private static void inPostgres(HistoryFolder folder, int runs, int tests) throws Exception {
        try (PostgresServer server = PostgresServer.start()) {
            String url = server.url(server.newDatabase());
            long from = System.nanoTime();
            try (RunTables tables = RunTables.at(url, "owner", "owner's")) {
                tables.update(folder, problem -> System.out.println(problem.sentence()));
                tables.allow("may_read");
            }
            System.out.printf(
                    "%d runs of %d tests: filled in %.1f s, in PostgreSQL%n", runs, tests, HistoryScale.seconds(from));
            try (RunTables tables = RunTables.at(url, "may_read", "reader's")) {
                for (int i = 0; i < 2; i++) ask(tables.reader());
            }
        }
    }

    private static void ask(TableReader reader) throws IOException, QueryException {
        for (var question : QUESTIONS.entrySet()) {
            long from = System.nanoTime();
            var out = new StringWriter();
            AnswerWriting csv = AnswerText.CSV.to(out);
            reader.ask(question.getValue(), csv);
            csv.end();
            System.out.printf(
                    "%s: %d rows in %.0f ms%n",
                    question.getKey(), out.toString().lines().count() - 1, HistoryScale.seconds(from) * 1_000);
        }
    }
}
