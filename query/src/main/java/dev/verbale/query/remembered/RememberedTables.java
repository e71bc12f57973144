package dev.verbale.query.remembered;

import dev.verbale.history.History;
import dev.verbale.history.RunResults;
import dev.verbale.history.RunSummary;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.h2.api.TableEngine;
import org.h2.command.ddl.CreateTableData;
import org.h2.table.Table;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.statement.PreparedBatch;

/** Makes the tables {@code runs}, {@code reasons} and {@code tests} of a history, in place of the views of whole runs. */
public final class RememberedTables implements TableEngine {

    /** Histories whose tables are being made, by a name that nobody else has: an engine gets no more than a text. */
    private static final Map<String, RememberedRuns> BEING_MADE = new ConcurrentHashMap<>();

    /** As the database makes it. */
    public RememberedTables() {}

    @Override
    public Table createTable(CreateTableData data) {
        RememberedRuns runs = data.tableEngineParams == null || data.tableEngineParams.isEmpty()
                ? null
                : BEING_MADE.get(data.tableEngineParams.get(0));
        if (runs == null) throw RememberedTests.readOnly();
        return new RememberedTests(data, runs);
    }

    /**
     * Makes them, in a schema that has the views.
     *
     * @param handle of who owns the schema, which is its present one
     */
    public static void make(Handle handle, History history) {
        List<RunResults> runs = history.results();
        for (String view : List.of("tests", "reasons", "runs")) {
            if (!view.equals("tests")) handle.execute("create table new_" + view + " as select * from " + view);
            handle.execute("drop view " + view);
            if (!view.equals("tests")) handle.execute("alter table new_" + view + " rename to " + view);
        }
        fillRuns(handle, runs);
        fillReasons(handle, history, runs);
        String name = UUID.randomUUID().toString();
        BEING_MADE.put(name, new RememberedRuns(runs));
        try {
            handle.execute("create table tests (" + ResultColumn.definitions() + ") engine \""
                    + RememberedTables.class.getName() + "\" with \"" + name + '"');
        } finally {
            BEING_MADE.remove(name);
        }
    }

    private static void fillRuns(Handle handle, List<RunResults> runs) {
        try (PreparedBatch batch = handle.prepareBatch("insert into runs (run_id, run, started, duration_ms, branch,"
                + " commit_id, complete, part, made_up, tests, needing_attention, broken)"
                + " values (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)")) {
            int number = 0;
            for (RunResults results : runs) {
                RunSummary run = results.run();
                batch.add(
                        ++number,
                        run.name(),
                        run.started().atOffset(ZoneOffset.UTC),
                        run.duration().toMillis(),
                        run.branch(),
                        run.commit(),
                        run.isComplete(),
                        run.part(),
                        run.isMadeUp(),
                        run.tests(),
                        run.needingAttention(),
                        results.brokenClasses());
            }
            if (number > 0) batch.execute();
        }
    }

    /** What is counted of a reason. */
    private static final class Counted {
        private final Instant first;
        private Instant last;
        private int runs;
        private int tests;

        private Counted(Instant first) {
            this.first = first;
            last = first;
        }
    }

    private static void fillReasons(Handle handle, History history, List<RunResults> runs) {
        Map<String, Counted> all = new LinkedHashMap<>();
        for (RunResults results : runs) {
            int[] tests = results.testsByReason();
            for (int i = 0; i < tests.length; i++) {
                if (tests[i] == 0) continue;
                ReasonDigest reason = results.reasons().get(i);
                Counted counted = all.computeIfAbsent(
                        reason.id(), added -> new Counted(results.run().started()));
                counted.last = results.run().started();
                counted.runs++;
                counted.tests += tests[i];
            }
        }
        try (PreparedBatch batch = handle.prepareBatch(
                "insert into reasons (reason, title, runs, tests, first_seen, last_seen) values (?, ?, ?, ?, ?, ?)")) {
            all.forEach((id, counted) -> batch.add(
                    id,
                    history.titleOf(id),
                    counted.runs,
                    counted.tests,
                    counted.first.atOffset(ZoneOffset.UTC),
                    counted.last.atOffset(ZoneOffset.UTC)));
            if (!all.isEmpty()) batch.execute();
        }
    }
}
