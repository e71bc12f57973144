package dev.verbale.history.compare;

import dev.verbale.history.Appearance;
import dev.verbale.history.History;
import dev.verbale.history.TestHistory;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.hipparchus.stat.descriptive.rank.Median;
import org.jspecify.annotations.Nullable;

/**
 * Whether a test took another time than it usually does. Where its history is known: farther from the median of its last passes than three
 * times their spread (the median of the deviations, scaled to that of a normal distribution), and by a quarter at least. Where it is
 * not: half as long again, and by half a second at least.
 */
final class UsualDuration {

    private static final int MAX_RUNS = 20;
    private static final int MIN_RUNS = 5;
    private static final double SPREADS = 3;
    /** From the median of the absolute deviations to the standard deviation of a normal distribution. */
    private static final double TO_DEVIATION = 1.4826;

    private static final double LEAST_CHANGE = 1.25;
    private static final double LEAST_MILLIS = 100;
    private static final double LEAST_CHANGE_UNKNOWN = 1.5;
    private static final double LEAST_MILLIS_UNKNOWN = 500;

    private final @Nullable History history;
    private final Instant before;

    UsualDuration(@Nullable History history, Instant before) {
        this.history = history;
        this.before = before;
    }

    /** Above 0 where {@code after} is slower than noise explains, below 0 where it is faster. */
    int compare(TestDigest earlier, TestDigest after) {
        if (!after.outcome().equals(Outcome.PASSED) || !earlier.outcome().equals(Outcome.PASSED)) return 0;
        double[] passes = passes(after.key());
        if (passes.length < MIN_RUNS)
            return sign(earlier.millis(), after.millis(), LEAST_CHANGE_UNKNOWN, LEAST_MILLIS_UNKNOWN);
        double median = median(passes);
        double[] deviations = java.util.Arrays.stream(passes)
                .map(one -> Math.abs(one - median))
                .toArray();
        return sign(
                median,
                after.millis(),
                LEAST_CHANGE,
                Math.max(LEAST_MILLIS, SPREADS * TO_DEVIATION * median(deviations)));
    }

    private static int sign(double usual, double now, double leastChange, double leastMillis) {
        if (Math.abs(now - usual) < leastMillis) return 0;
        if (now > usual * leastChange) return 1;
        return usual > now * leastChange ? -1 : 0;
    }

    private double[] passes(String key) {
        if (history == null) return new double[0];
        TestHistory test =
                history.test(key, run -> run.started().isBefore(before)).orElse(null);
        if (test == null) return new double[0];
        List<Double> millis = new ArrayList<>();
        List<Appearance> all = test.appearances();
        for (int i = all.size() - 1; i >= 0 && millis.size() < MAX_RUNS; i--)
            if (all.get(i).outcome().equals(Outcome.PASSED) && !all.get(i).recovered())
                millis.add((double) all.get(i).duration().toMillis());
        return millis.stream().mapToDouble(Double::doubleValue).toArray();
    }

    private static double median(double[] values) {
        return new Median().evaluate(values);
    }
}
