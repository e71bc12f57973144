package dev.verbale.history;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * By how much each run, and each worker of it, was slower than usual in all its tests: the median of what its tests took beside what each
 * takes at the median. A slow machine is no slower test.
 *
 * @since 0.2.0
 */
final class SharedSpeed {

    /** Of fewer tests nobody can tell what they share. */
    private static final int LEAST_TESTS = 10;
    /** What is quicker is noise of the clock. */
    static final double LEAST_LOG_MILLIS = Math.log(20);

    private final double[] byRun;
    private final Map<Long, Double> byWorker = new HashMap<>();

    /** @param tests of {@code runs} runs */
    SharedSpeed(int runs, List<Durations> tests) {
        byRun = new double[runs];
        var around = new Sample[runs];
        for (int i = 0; i < runs; i++) around[i] = new Sample();
        Map<Long, Sample> aroundWorkers = new HashMap<>();
        for (Durations test : tests) {
            double usual = test.median();
            if (!(usual >= LEAST_LOG_MILLIS)) continue;
            for (int i = 0; i < test.run().length; i++) {
                double more = test.logMillis()[i] - usual;
                around[test.run()[i]].add(more);
                if (test.worker()[i] >= 0)
                    aroundWorkers
                            .computeIfAbsent(worker(test.run()[i], test.worker()[i]), one -> new Sample())
                            .add(more);
            }
        }
        for (int i = 0; i < runs; i++) if (around[i].size >= LEAST_TESTS) byRun[i] = around[i].median();
        aroundWorkers.forEach((worker, all) -> {
            if (all.size >= LEAST_TESTS) byWorker.put(worker, all.median());
        });
    }

    private static final class Sample {
        private double[] values = new double[64];
        private int size;

        private void add(double value) {
            if (size == values.length) values = Arrays.copyOf(values, size * 2);
            values[size++] = value;
        }

        private double median() {
            return ChangePoint.median(Arrays.copyOf(values, size));
        }
    }

    private static long worker(int run, int worker) {
        return (long) run << 32 | worker;
    }

    /** How many times as slow as usual run number {@code run} was, such as 1.6. */
    double factor(int run) {
        return Math.exp(byRun[run]);
    }

    /** What {@code test} took without what its runs share. */
    double[] without(Durations test) {
        double[] own = new double[test.run().length];
        for (int i = 0; i < own.length; i++) {
            Double shared = byWorker.isEmpty() ? null : byWorker.get(worker(test.run()[i], test.worker()[i]));
            own[i] = test.logMillis()[i] - (shared == null ? byRun[test.run()[i]] : shared);
        }
        return own;
    }
}
