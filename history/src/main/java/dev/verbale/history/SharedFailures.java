package dev.verbale.history;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Finds runs that were not themselves: in which far more tests than usual began to fail for one reason, or for any, or needed another attempt.
 * What is usual is the median of all runs, so that a reason by which a dozen flaky tests fail every night disturbs none.
 */
final class SharedFailures {

    private static final int LEAST_FOR_ONE_REASON = 4;
    private static final int LEAST_FOR_ANY = 8;
    private static final double LEAST_PART_FOR_ANY = 0.03;
    private static final double TIMES_THE_USUAL = 3;
    private static final int ANY = -1;

    private final List<RunSummary> runs;
    private final List<Trials> tests;
    /** How many began to fail, by reason and run; for any reason under {@link #ANY}. */
    private final Map<Integer, int[]> begun = new HashMap<>();

    private final int[] recovered;
    private final List<Disturbance> found = new ArrayList<>();

    private SharedFailures(List<RunSummary> runs, List<Trials> tests) {
        this.runs = runs;
        this.tests = tests;
        recovered = new int[runs.size()];
    }

    /**
     * Marks what is shared in {@code tests}.
     *
     * @param reasons the ids of reasons by their numbers
     */
    static List<Disturbance> mark(List<RunSummary> runs, List<Trials> tests, List<String> reasons) {
        var shared = new SharedFailures(runs, tests);
        shared.count();
        shared.mark(reasons);
        return shared.found;
    }

    private void count() {
        begun.put(ANY, new int[runs.size()]);
        for (Trials test : tests)
            for (int i = 0; i < test.run().length; i++) {
                int run = test.run()[i];
                if (test.passed()[i]) {
                    if (test.failed()[i] > 0) recovered[run]++;
                    continue;
                }
                if (i > 0 && !test.passed()[i - 1]) continue;
                begun.computeIfAbsent(ANY, any -> new int[runs.size()])[run]++;
                int reason = test.reason()[i];
                if (reason >= 0) begun.computeIfAbsent(reason, one -> new int[runs.size()])[run]++;
            }
    }

    private void mark(List<String> reasons) {
        Map<Integer, boolean[]> disturbed = new HashMap<>();
        begun.forEach((reason, counts) -> {
            boolean[] is = disturbed(counts, reason == ANY);
            if (is != null) disturbed.put(reason, is);
        });
        boolean[] byRecovery = disturbed(recovered, true);
        for (Trials test : tests) mark(test, disturbed, byRecovery);
        for (int run = 0; run < runs.size(); run++) {
            Disturbance one = disturbance(run, disturbed, byRecovery != null && byRecovery[run], reasons);
            if (one != null) found.add(one);
        }
    }

    /** Of run number {@code run}: by the one reason that most have, or by many; null where it was itself. */
    private @Nullable Disturbance disturbance(
            int run, Map<Integer, boolean[]> disturbed, boolean byRecovery, List<String> reasons) {
        int largest = 0;
        int reason = ANY;
        for (int one : disturbed.keySet()) {
            int tests = begun(one, run);
            if (one == ANY || !is(disturbed, one, run) || tests <= largest) continue;
            largest = tests;
            reason = one;
        }
        int all = begun(ANY, run);
        boolean isWide = is(disturbed, ANY, run);
        if (reason != ANY && (!isWide || largest * 2 > all))
            return new Disturbance(runs.get(run), largest, reasons.get(reason));
        if (isWide) return new Disturbance(runs.get(run), all, null);
        return byRecovery ? new Disturbance(runs.get(run), recovered[run], null) : null;
    }

    private int begun(int reason, int run) {
        int[] counts = begun.get(reason);
        return counts == null ? 0 : counts[run];
    }

    /** For each run whether it has far more than usual; null where none has. */
    private boolean @Nullable [] disturbed(int[] counts, boolean ofAny) {
        int largest = Arrays.stream(counts).max().orElse(0);
        if (largest < (ofAny ? LEAST_FOR_ANY : LEAST_FOR_ONE_REASON)) return null;
        int[] sorted = counts.clone();
        Arrays.sort(sorted);
        double usual = sorted[sorted.length / 2];
        boolean[] is = new boolean[counts.length];
        for (int run = 0; run < counts.length; run++) {
            double least = ofAny
                    ? Math.max(LEAST_FOR_ANY, LEAST_PART_FOR_ANY * runs.get(run).tests())
                    : LEAST_FOR_ONE_REASON;
            is[run] = counts[run] >= Math.max(least, TIMES_THE_USUAL * (usual + 1));
        }
        return is;
    }

    /** From where it began up to where the test passes again, or fails for another reason. */
    private static void mark(Trials test, Map<Integer, boolean[]> disturbed, boolean @Nullable [] byRecovery) {
        int since = -2; // the reason of the stretch that is shared
        for (int i = 0; i < test.run().length; i++) {
            int run = test.run()[i];
            int reason = test.reason()[i];
            if (test.passed()[i]) {
                since = -2;
                test.shared()[i] = test.failed()[i] > 0 && byRecovery != null && byRecovery[run];
                continue;
            }
            boolean begins = i == 0 || test.passed()[i - 1];
            if (begins) since = is(disturbed, reason, run) || is(disturbed, ANY, run) ? reason : -2;
            else if (reason != since) since = -2;
            test.shared()[i] = since != -2;
        }
    }

    private static boolean is(Map<Integer, boolean[]> disturbed, int reason, int run) {
        boolean[] runs = disturbed.get(reason);
        return runs != null && runs[run];
    }
}
