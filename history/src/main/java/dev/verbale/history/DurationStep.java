package dev.verbale.history;

import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.hipparchus.stat.descriptive.rank.Median;
import org.hipparchus.stat.inference.MannWhitneyUTest;

/**
 * That the newest runs of a test took another time than those before: the last {@value #NEW} against the {@value #OLD} before them, by the
 * test of Mann and Whitney (1947) on logarithms. How much is the median of all differences (Hodges and Lehmann 1963).
 *
 * @param before the median of the older ones
 * @param after the median of the newer ones
 * @param factor how many times as long, such as 1.4; below 1 where it is faster now
 * @param p how likely such a difference is by chance
 * @since 0.2.0
 */
public record DurationStep(Duration before, Duration after, double factor, double p) {

    /** How many of the newest runs are compared. */
    static final int NEW = 7;

    /** How many runs before those, at the most. */
    static final int OLD = 20;

    private static final int LEAST_OLD = 7;
    private static final double LARGEST_P = 0.001;
    private static final double LEAST_CHANGE = 0.10;
    /** What is quicker is noise of the clock. */
    private static final double LEAST_MILLIS = 20;

    /**
     * @param durations in the order of their runs
     * @return empty where the difference may be chance, is below a tenth, or there are too few runs
     */
    static Optional<DurationStep> of(List<Duration> durations) {
        int size = durations.size();
        if (size < NEW + LEAST_OLD) return Optional.empty();
        double[] after = millis(durations.subList(size - NEW, size));
        double[] before = millis(durations.subList(Math.max(0, size - NEW - OLD), size - NEW));
        if (Math.max(median(before), median(after)) < LEAST_MILLIS) return Optional.empty();
        double shift = shift(logs(before), logs(after));
        double factor = Math.exp(shift);
        if (Math.abs(factor - 1) <= LEAST_CHANGE) return Optional.empty();
        double p = new MannWhitneyUTest().mannWhitneyUTest(logs(after), logs(before));
        if (p >= LARGEST_P) return Optional.empty();
        return Optional.of(new DurationStep(
                Duration.ofMillis(Math.round(median(before))),
                Duration.ofMillis(Math.round(median(after))),
                factor,
                p));
    }

    private static double[] millis(List<Duration> durations) {
        return durations.stream()
                .mapToDouble(one -> Math.max(1, one.toMillis()))
                .toArray();
    }

    private static double[] logs(double[] millis) {
        return Arrays.stream(millis).map(Math::log).toArray();
    }

    private static double shift(double[] before, double[] after) {
        double[] differences = new double[before.length * after.length];
        int i = 0;
        for (double a : after) for (double b : before) differences[i++] = a - b;
        return median(differences);
    }

    private static double median(double[] values) {
        return new Median().evaluate(values);
    }
}
