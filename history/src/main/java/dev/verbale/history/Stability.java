package dev.verbale.history;

import dev.verbale.history.RunColumns.Unusual;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Which tests are flaky or broken, and which runs were not themselves, by the newest of the runs that count. */
final class Stability {

    private final List<TestRow> unsteady = new ArrayList<>();
    private final List<Trials> trials = new ArrayList<>();
    private final Map<TestRow, Integer> indexes = new HashMap<>();
    private final List<Disturbance> disturbances;
    private final Flakiness[] flakiness;
    private final int newest;

    Stability(Suite suite, int[] numbers, BitSet counted) {
        int[] last =
                Arrays.copyOfRange(numbers, Math.max(0, numbers.length - StabilityModel.MAX_TRIALS), numbers.length);
        newest = last.length - 1;
        var some = new BitSet();
        for (int number : last) some.set(number);
        some.and(counted);
        long quiet = 0;
        long quietRuns = 0;
        for (TestRow row : suite.rows()) {
            if (!row.everFailed()) {
                int runs = suite.runs(row, some);
                if (runs > 0) quiet++;
                quietRuns += runs;
                continue;
            }
            indexes.put(row, unsteady.size());
            unsteady.add(row);
            trials.add(trials(suite, row, last));
        }
        List<RunSummary> runs =
                Arrays.stream(last).mapToObj(number -> suite.runs().get(number)).toList();
        disturbances = SharedFailures.mark(runs, trials, suite.reasons());
        flakiness = StabilityModel.of(trials, quiet, quietRuns);
    }

    private static Trials trials(Suite suite, TestRow row, int[] last) {
        int[] run = new int[last.length];
        byte[] failed = new byte[last.length];
        boolean[] passed = new boolean[last.length];
        int[] reason = new int[last.length];
        int size = 0;
        for (int i = 0; i < last.length; i++) {
            if (suite.position(row, last[i]) < 0) continue;
            Unusual unusual = row.in(last[i]);
            boolean fails = unusual != null && unusual.outcome().needsAttention();
            boolean passes = unusual == null || unusual.outcome().equals(dev.verbale.vocabulary.Outcome.PASSED);
            if (!fails && !passes) continue; // skipped
            int attempts = unusual == null ? 1 : Math.min(100, unusual.attempts());
            run[size] = i;
            failed[size] = (byte) (fails ? attempts : unusual != null && unusual.recovered() ? attempts - 1 : 0);
            passed[size] = !fails;
            reason[size++] = row.reasonIn(last[i]);
        }
        return new Trials(
                Arrays.copyOf(run, size),
                Arrays.copyOf(failed, size),
                Arrays.copyOf(passed, size),
                Arrays.copyOf(reason, size),
                new boolean[size]);
    }

    List<Disturbance> disturbances() {
        return disturbances;
    }

    /** Tests that failed in any run. */
    List<TestRow> unsteady() {
        return unsteady;
    }

    Flakiness of(TestRow row) {
        Integer index = indexes.get(row);
        return index == null ? Flakiness.STEADY : flakiness[index];
    }

    boolean isSharedInNewest(TestRow row) {
        Integer index = indexes.get(row);
        return index != null && trials.get(index).isSharedIn(newest);
    }
}
