package dev.verbale.lake;

import dev.verbale.event.ExchangeMade;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.query.values.StoredMoment;
import dev.verbale.query.values.StoredText;
import dev.verbale.results.Entry;
import dev.verbale.results.ModuleKey;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.duckdb.DuckDBAppender;
import org.duckdb.DuckDBConnection;
import org.jspecify.annotations.Nullable;

/** The rows of runs, in tables of the engine that lie in memory until they become files. */
final class RunRows implements AutoCloseable {

    static final String SCHEMA = "fresh";

    private final DuckDBConnection connection;
    private final Map<LakeTable, DuckDBAppender> appenders = new EnumMap<>(LakeTable.class);

    RunRows(DuckDBConnection connection) {
        this.connection = connection;
    }

    /** Tables without rows, in the place of those that are there. */
    static void make(DuckDBConnection connection) throws SQLException {
        ColumnEngine.execute(connection, "create schema if not exists " + SCHEMA);
        for (LakeTable table : LakeTable.values())
            ColumnEngine.execute(
                    connection,
                    "create or replace table " + SCHEMA + "." + table.word() + " (" + table.definitions() + ")");
    }

    void add(LakeRun run, KnownTests known) throws SQLException {
        RunDigest digest = run.digest();
        long id = run.id();
        run(id, digest);
        Map<String, Integer> byReason = new HashMap<>();
        for (TestDigest test : digest.tests()) {
            long number = known.id(test.key());
            if (known.isNews(number, KnownTests.description(test))) test(number, test, digest.started());
            if (run.read() == null)
                attempt(
                        new AttemptRow(
                                number,
                                test.attempts(),
                                true,
                                test.outcome().word(),
                                test.outcome().needsAttention(),
                                test.recovered(),
                                test.millis(),
                                test.reason(),
                                test.origin().worker() < 0
                                        ? null
                                        : test.origin().worker()),
                        id,
                        digest);
            if (test.reason() != null) byReason.merge(test.reason(), 1, Integer::sum);
            steps(number, test, id, digest);
        }
        for (RunDigest.ReasonDigest reason : digest.reasons()) {
            Integer tests = byReason.get(reason.id());
            if (tests != null) reason(reason, tests, id, digest.started());
        }
        Run read = run.read();
        if (read != null) attempts(read, digest, id, known);
    }

    private void run(long id, RunDigest digest) throws SQLException {
        DuckDBAppender row = row(LakeTable.RUNS);
        row.append(id);
        row.append(name(digest.run()));
        row.append(time(digest.started()));
        row.append(digest.duration().toMillis());
        row.append(name(digest.branch()));
        row.append(name(digest.commit()));
        row.append(digest.isComplete());
        row.append(name(digest.part()));
        row.append(digest.isMadeUp());
        row.append(digest.tests().size());
        row.append(digest.needingAttention());
        row.append(digest.broken().size());
        Map<String, String> facts = new HashMap<>();
        digest.facts().forEach((fact, value) -> facts.put(name(fact), name(value)));
        row.append(facts);
        row.endRow();
    }

    private void test(long number, TestDigest test, Instant seen) throws SQLException {
        DuckDBAppender row = row(LakeTable.TESTS);
        row.append(number);
        row.append(name(test.key()));
        row.append(name(ModuleKey.module(test.key())));
        row.append(name(test.name()));
        row.append(nameOrNull(test.origin().className()));
        row.append(nameOrNull(test.origin().methodName()));
        row.append(name(String.join(" ", test.origin().tags())));
        row.append(nameOrNull(test.origin().owner()));
        row.append(time(seen));
        row.endRow();
    }

    private record AttemptRow(
            long test,
            int number,
            boolean isLast,
            String outcome,
            boolean needsAttention,
            boolean isFlaky,
            int millis,
            @Nullable String reason,
            @Nullable Integer worker) {}

    private void attempt(AttemptRow attempt, long run, RunDigest digest) throws SQLException {
        DuckDBAppender row = row(LakeTable.ATTEMPTS);
        row.append(attempt.test);
        row.append(run);
        row.append(name(digest.run()));
        row.append(time(digest.started()));
        row.append(name(digest.branch()));
        row.append(small(attempt.number));
        row.append(attempt.isLast);
        row.append(name(attempt.outcome));
        row.append(attempt.needsAttention);
        row.append(attempt.isFlaky);
        row.append(attempt.millis);
        row.append(nameOrNull(attempt.reason));
        if (attempt.worker == null) row.appendNull();
        else row.append(small(attempt.worker));
        row.endRow();
    }

    private void reason(RunDigest.ReasonDigest reason, int tests, long run, Instant started) throws SQLException {
        DuckDBAppender row = row(LakeTable.REASONS);
        row.append(name(reason.id()));
        row.append(name(reason.title()));
        row.append(run);
        row.append(time(started));
        row.append(tests);
        row.endRow();
    }

    private void steps(long number, TestDigest test, long run, RunDigest digest) throws SQLException {
        int count = 0;
        for (RunDigest.StepTime step : test.steps()) {
            DuckDBAppender row = row(LakeTable.STEPS);
            row.append(number);
            row.append(run);
            row.append(name(digest.run()));
            row.append(time(digest.started()));
            row.append(small(test.attempts()));
            row.append(small(++count));
            row.append(name(step.name()));
            row.append(step.millis());
            row.endRow();
        }
    }

    /** All attempts of a run that was read, with their exchanges. */
    private void attempts(Run read, RunDigest digest, long id, KnownTests known) throws SQLException {
        Map<String, TestDigest> last = new HashMap<>();
        for (TestDigest test : digest.tests()) last.put(test.key(), test);
        List<String> workers = read.workers().stream().map(one -> one.name()).toList();
        for (TestResult test : read.tests()) {
            long number = known.id(test.key());
            TestDigest what = last.get(test.key());
            boolean isLast = !test.superseded();
            int attempt = test.attempt().number();
            attempt(
                    new AttemptRow(
                            number,
                            attempt,
                            isLast,
                            test.outcome().word(),
                            test.outcome().needsAttention(),
                            test.recovered(),
                            millis(test.duration()),
                            isLast && what != null ? what.reason() : null,
                            workers.size() < 2
                                    ? null
                                    : workers.indexOf(test.course().worker())),
                    id,
                    digest);
            exchanges(test.entries(), number, attempt, id, digest);
        }
    }

    /** Without recursion: steps may lie in one another as deep as a recorder lets them. */
    private void exchanges(List<Entry> outermost, long test, int attempt, long run, RunDigest digest)
            throws SQLException {
        int count = 0;
        Deque<Entry> open = new ArrayDeque<>(outermost);
        while (!open.isEmpty()) {
            Entry entry = open.poll();
            List<Entry> inside = Entry.inside(entry);
            for (int i = inside.size() - 1; i >= 0; i--) open.addFirst(inside.get(i));
            if (!(entry instanceof Entry.ExchangeEntry one)) continue;
            ExchangeMade.Response response = one.made().response();
            DuckDBAppender row = row(LakeTable.EXCHANGES);
            row.append(test);
            row.append(run);
            row.append(name(digest.run()));
            row.append(time(digest.started()));
            row.append(small(attempt));
            row.append(++count);
            row.append(name(one.made().request().method()));
            row.append(name(one.made().request().url().replaceFirst("[?#].*", "")));
            Integer status = response == null ? null : response.status();
            if (status == null) row.appendNull();
            else row.append(small(status));
            row.append(millis(one.duration()));
            row.endRow();
        }
    }

    private DuckDBAppender row(LakeTable table) throws SQLException {
        DuckDBAppender appender = appenders.get(table);
        if (appender == null) {
            appender = connection.createAppender(SCHEMA, table.word());
            appenders.put(table, appender);
        }
        appender.beginRow();
        return appender;
    }

    private static OffsetDateTime time(Instant moment) {
        return StoredMoment.of(moment).atOffset(ZoneOffset.UTC);
    }

    private static String name(String text) {
        return StoredText.of(text, StoredText.NAME);
    }

    private static @Nullable String nameOrNull(@Nullable String text) {
        return StoredText.orNull(text, StoredText.NAME);
    }

    private static short small(int number) {
        return (short) Math.max(0, Math.min(Short.MAX_VALUE, number));
    }

    private static int millis(Duration duration) {
        return (int) Math.max(0, Math.min(Integer.MAX_VALUE, duration.toMillis()));
    }

    @Override
    public void close() throws SQLException {
        for (DuckDBAppender one : appenders.values()) one.close();
        appenders.clear();
    }
}
