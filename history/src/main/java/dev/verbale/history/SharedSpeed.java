package dev.verbale.history;

import java.util.ArrayList;
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
        Map<Long, List<Double>> around = new HashMap<>();
        List<List<Double>> aroundRun = new ArrayList<>();
        for (int i = 0; i < runs; i++) aroundRun.add(new ArrayList<>());
        for (Durations test : tests) {
            double usual = test.median();
            if (!(usual >= LEAST_LOG_MILLIS)) continue;
            for (int i = 0; i < test.run().length; i++) {
                double more = test.logMillis()[i] - usual;
                aroundRun.get(test.run()[i]).add(more);
                if (test.worker()[i] >= 0)
                    around.computeIfAbsent(worker(test.run()[i], test.worker()[i]), one -> new ArrayList<>())
                            .add(more);
            }
        }
        for (int i = 0; i < runs; i++) if (aroundRun.get(i).size() >= LEAST_TESTS) byRun[i] = median(aroundRun.get(i));
        around.forEach((worker, all) -> {
            if (all.size() >= LEAST_TESTS) byWorker.put(worker, median(all));
        });
    }

    private static long worker(int run, int worker) {
        return (long) run << 32 | worker;
    }

    private static double median(List<Double> values) {
        return ChangePoint.median(
                values.stream().mapToDouble(Double::doubleValue).toArray());
    }

    /** How many times as slow as usual run number {@code run} was, such as 1.6. */
    double factor(int run) {
        return Math.exp(byRun[run]);
    }

    /** What {@code test} took without what its runs share. */
    double[] without(Durations test) {
        double[] own = new double[test.run().length];
        for (int i = 0; i < own.length; i++) {
            Double shared = byWorker.get(worker(test.run()[i], test.worker()[i]));
            own[i] = test.logMillis()[i] - (shared == null ? byRun[test.run()[i]] : shared);
        }
        return own;
    }
}
