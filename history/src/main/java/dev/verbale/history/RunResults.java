package dev.verbale.history;

import dev.verbale.history.RunColumns.Unusual;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest.Origin;
import dev.verbale.vocabulary.Outcome;
import java.lang.ref.SoftReference;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What one remembered run says of its tests, each once, as its last attempt; by positions from 0, in the order of the digest.
 *
 * <p>Times and origins are read from files when they are asked for first. Safe for several threads.
 *
 * @since 0.2.0
 */
public final class RunResults {

    private final RunColumns columns;
    private SoftReference<int[]> millis = new SoftReference<>(null);

    RunResults(RunColumns columns) {
        this.columns = columns;
    }

    /** Which run it is. */
    public RunSummary run() {
        return columns.run();
    }

    /** How many tests it has. */
    public int size() {
        return columns.table().keys().size();
    }

    /** Which tests it has: an object that other runs with the same tests, names and origins have too. */
    public Object suite() {
        return columns.table();
    }

    /** The tests' keys. */
    public List<String> keys() {
        return columns.table().keys();
    }

    /** What the tests are called, with the names around them. */
    public List<String> names() {
        return columns.table().names();
    }

    /** Where the tests stand, and whose they are, of no worker; empty where that cannot be read any more. */
    public List<Origin> origins() {
        return columns.table().origins().all();
    }

    /** The reasons that tests of it failed for. */
    public List<ReasonDigest> reasons() {
        return columns.reasons();
    }

    /** They are in order, and few. */
    private @Nullable Unusual unusual(int position) {
        List<Unusual> all = columns.unusual();
        int low = 0;
        int high = all.size() - 1;
        while (low <= high) {
            int middle = (low + high) >>> 1;
            Unusual one = all.get(middle);
            if (one.position() == position) return one;
            if (one.position() < position) low = middle + 1;
            else high = middle - 1;
        }
        return null;
    }

    /** How a test ended. */
    public Outcome outcome(int position) {
        Unusual one = unusual(position);
        return one == null ? Outcome.PASSED : one.outcome();
    }

    /** How often a test was run, 1 or more. */
    public int attempts(int position) {
        Unusual one = unusual(position);
        return one == null ? 1 : one.attempts();
    }

    /** Whether a test passed after an attempt that had not. */
    public boolean isRecovered(int position) {
        Unusual one = unusual(position);
        return one != null && one.recovered();
    }

    /** The position of a test's reason in {@link #reasons}; -1 where it has none. */
    public int reason(int position) {
        Unusual one = unusual(position);
        return one == null || one.reason() >= columns.reasons().size() ? -1 : one.reason();
    }

    /** How many tests failed for each of {@link #reasons}, in their order. */
    public int[] testsByReason() {
        int[] tests = new int[columns.reasons().size()];
        for (Unusual one : columns.unusual())
            if (one.reason() >= 0 && one.reason() < tests.length) tests[one.reason()]++;
        return tests;
    }

    /** How long a test took; 0 where that cannot be read any more. */
    public int millis(int position) {
        int[] read = millis.get();
        if (read == null) {
            read = columns.times().millis();
            millis = new SoftReference<>(read);
        }
        return position < read.length ? read[position] : 0;
    }

    /** How many classes broke outside their tests. */
    public int brokenClasses() {
        int tests = 0;
        for (Unusual one : columns.unusual()) if (one.outcome().needsAttention()) tests++;
        return Math.max(0, run().needingAttention() - tests);
    }
}
