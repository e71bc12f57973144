package dev.verbale.history;

import dev.verbale.history.RunColumns.Unusual;
import dev.verbale.history.digest.MovedTests;
import dev.verbale.history.digest.RenamedTests;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** All runs that are remembered, and a row for each test of theirs; made once and not changed afterwards. */
final class Suite {

    private final List<RunColumns> runs;
    private final List<RunSummary> summaries;
    private final int[] tableOf;
    private final List<BitSet> runsOf = new ArrayList<>();
    private final Map<String, TestRow> rows = new LinkedHashMap<>();
    private final List<String> reasons = new ArrayList<>();
    private final Map<String, String> titles = new HashMap<>();

    // While it is made:
    private final Map<String, Integer> tables = new HashMap<>();
    private final List<Mapping> mappings = new ArrayList<>();
    private final Map<String, Integer> reasonNumbers = new HashMap<>();
    private int renamed;

    /** Which rows a table's tests are, as long as none was renamed. */
    private record Mapping(TestRow[] rows, int renamed) {}

    /** @param inOrder of their times, tables shared */
    Suite(List<RunColumns> inOrder) {
        runs = List.copyOf(inOrder);
        summaries = runs.stream().map(RunColumns::run).toList();
        tableOf = new int[runs.size()];
        for (int run = 0; run < tableOf.length; run++) add(run, runs.get(run));
    }

    private void add(int run, RunColumns columns) {
        int table = tables.computeIfAbsent(columns.table().id(), added -> {
            runsOf.add(new BitSet());
            mappings.add(new Mapping(new TestRow[0], -1));
            return runsOf.size() - 1;
        });
        tableOf[run] = table;
        runsOf.get(table).set(run);
        Mapping mapping = mappings.get(table);
        if (mapping.renamed != renamed) {
            mapping = map(columns, table, run == 0 ? null : runs.get(run - 1));
            mappings.set(table, mapping);
        }
        List<Integer> numbers = new ArrayList<>();
        for (ReasonDigest reason : columns.reasons()) {
            titles.put(reason.id(), reason.title());
            numbers.add(reasonNumbers.computeIfAbsent(reason.id(), id -> {
                reasons.add(id);
                return reasons.size() - 1;
            }));
        }
        for (Unusual one : columns.unusual()) {
            if (one.position() >= mapping.rows.length) continue;
            boolean isKnown = one.reason() >= 0 && one.reason() < numbers.size();
            mapping.rows[one.position()].add(run, one, isKnown ? numbers.get(one.reason()) : -1);
        }
    }

    /** @param last the run before; null where there is none */
    private Mapping map(RunColumns columns, int number, @Nullable RunColumns last) {
        SuiteTable table = columns.table();
        RenamedTests called = last != null && isWhole(columns) && isWhole(last)
                ? new RenamedTests(table.keys(), last.table().keys())
                : null;
        var moved = new MovedTests(table.keys(), rows.keySet());
        TestRow[] its = new TestRow[table.keys().size()];
        for (int i = 0; i < its.length; i++) {
            String key = table.keys().get(i);
            String name = table.names().get(i);
            String earlier = rows.containsKey(key) ? null : moved.earlier(key);
            if (earlier == null && called != null && !rows.containsKey(key)) earlier = called.earlier(key);
            TestRow before = earlier == null ? null : rows.remove(earlier);
            if (before != null) {
                renamed++;
                rows.put(key, before);
            }
            TestRow row = rows.computeIfAbsent(key, added -> new TestRow(added, name));
            row.call(key, name);
            row.isAt(number, i);
            its[i] = row;
        }
        return new Mapping(its, renamed);
    }

    /** Whether what a run does not have is not there any more. */
    private static boolean isWhole(RunColumns columns) {
        return columns.run().isComplete() && columns.run().part().isEmpty();
    }

    List<RunSummary> runs() {
        return summaries;
    }

    RunColumns columns(int run) {
        return runs.get(run);
    }

    Iterable<TestRow> rows() {
        return Collections.unmodifiableCollection(rows.values());
    }

    @Nullable
    TestRow row(String key) {
        return rows.get(key);
    }

    /** Where a test stands in run number {@code run}; -1 where that has it not. */
    int position(TestRow row, int run) {
        return row.positionIn(tableOf[run]);
    }

    /** How many runs of {@code counted} have a test. */
    int runs(TestRow row, BitSet counted) {
        int count = 0;
        for (int i = 0; i < row.tableCount(); i++) {
            BitSet both = (BitSet) counted.clone();
            both.and(runsOf.get(row.table(i)));
            count += both.cardinality();
        }
        return count;
    }

    /** Whether one of {@code counted} has a test. */
    boolean isIn(TestRow row, BitSet counted) {
        for (int i = 0; i < row.tableCount(); i++) if (counted.intersects(runsOf.get(row.table(i)))) return true;
        return false;
    }

    /** The ids of reasons by their numbers. */
    List<String> reasons() {
        return reasons;
    }

    String titleOf(String reason) {
        return titles.getOrDefault(reason, "");
    }
}
