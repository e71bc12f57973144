package dev.verbale.history;

import dev.verbale.history.RunColumns.Unusual;
import dev.verbale.vocabulary.Outcome;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** One test over all runs: where it stands in their tables, and what became of it where it did not simply pass. */
final class TestRow {

    private String key;
    private String name;
    private int[] tables = new int[1];
    private int[] positions = new int[1];
    private int tableCount;

    private int size;
    private int[] run = {};
    private Unusual[] unusual = {};
    private int[] reason = {};

    TestRow(String key, String name) {
        this.key = key;
        this.name = name;
    }

    String key() {
        return key;
    }

    String name() {
        return name;
    }

    /** As it is called last. */
    void call(String otherKey, String otherName) {
        key = otherKey;
        name = otherName;
    }

    /** It stands at {@code position} of table number {@code table}, as long as nothing else is told of that table. */
    void isAt(int table, int position) {
        for (int i = 0; i < tableCount; i++)
            if (tables[i] == table) {
                positions[i] = position;
                return;
            }
        if (tableCount == tables.length) {
            tables = Arrays.copyOf(tables, tableCount * 2);
            positions = Arrays.copyOf(positions, tableCount * 2);
        }
        tables[tableCount] = table;
        positions[tableCount++] = position;
    }

    /** Where it stands in table number {@code table}; -1 for nowhere. */
    int positionIn(int table) {
        for (int i = 0; i < tableCount; i++) if (tables[i] == table) return positions[i];
        return -1;
    }

    int tableCount() {
        return tableCount;
    }

    int table(int index) {
        return tables[index];
    }

    /** Runs are told in their order. */
    void add(int inRun, Unusual what, int why) {
        if (size == run.length) {
            int more = Math.max(4, size * 2);
            run = Arrays.copyOf(run, more);
            unusual = Arrays.copyOf(unusual, more);
            reason = Arrays.copyOf(reason, more);
        }
        run[size] = inRun;
        unusual[size] = what;
        reason[size++] = why;
    }

    /** How many runs it did not simply pass in. */
    int unusualRuns() {
        return size;
    }

    int unusualRun(int at) {
        return run[at];
    }

    /** The number of the reason that it failed for in the run that {@link #unusualRun} tells; -1 for none. */
    int unusualReason(int at) {
        return reason[at];
    }

    private int find(int inRun) {
        return Arrays.binarySearch(run, 0, size, inRun);
    }

    /** What became of it in a run that has it; null where it simply passed. */
    @Nullable
    Unusual in(int inRun) {
        int at = find(inRun);
        return at < 0 ? null : unusual[at];
    }

    /** The number of the reason that it failed for in a run; -1 for none. */
    int reasonIn(int inRun) {
        int at = find(inRun);
        return at < 0 ? -1 : reason[at];
    }

    /** Whether it failed, or needed another attempt, in any run. */
    boolean everFailed() {
        for (int i = 0; i < size; i++) {
            Outcome outcome = unusual[i].outcome();
            if (outcome.needsAttention() || unusual[i].recovered()) return true;
        }
        return false;
    }
}
