package dev.verbale.history;

import org.hipparchus.distribution.continuous.NormalDistribution;
import org.hipparchus.distribution.continuous.TDistribution;
import org.hipparchus.stat.descriptive.rank.Median;

/**
 * The last change of the level of a row of numbers, found by binary segmentation (Scott and Knott 1974): where the difference of the means
 * before and after is largest beside its error, and again in what lies behind.
 *
 * <p>How likely the largest of so many differences is by chance is told by the approximation of James, James and Siegmund ("Tests for a
 * change-point", Biometrika 74(1), 1987), from a t value with its degrees of freedom. Single values far out are drawn in first.
 *
 * @param from the first position of the newest level
 * @param since the first position of the level before
 * @param difference how much higher the newest level is
 * @param error the half width of the 95 % interval of that
 * @param p how likely such a change is by chance
 */
record ChangePoint(int from, int since, double difference, double error, double p) {

    private static final int LEAST_BEFORE = 5;
    private static final int LEAST_AFTER = 4;
    private static final double FARTHEST = 3;
    private static final int AROUND = 2;
    /** What is known of the spread beforehand counts as so many degrees of freedom (moderated t; Smyth 2004). */
    static final int PRIOR_FREEDOM = 4;

    private static final double LEAST_Z = 3;
    private static final double SURE = 1e-13;

    private static final NormalDistribution NORMAL = new NormalDistribution();
    /** From the median of the absolute deviations to the standard deviation of a normal distribution. */
    static final double TO_DEVIATION = 1.4826;

    /** Nothing changed. */
    static final ChangePoint NONE = new ChangePoint(0, 0, 0, 0, 1);

    /**
     * The change that is least likely by chance.
     *
     * @param values in their order, see {@link #drawnIn}
     * @param usualSpread the standard deviation that such rows have
     */
    static ChangePoint strongest(double[] values, double usualSpread) {
        return strongest(values, 0, values.length, usualSpread);
    }

    /**
     * The last change, which may be another one than the strongest.
     *
     * @param splitsAt the largest p that is a change
     */
    static ChangePoint last(double[] values, double usualSpread, double splitsAt) {
        ChangePoint last = strongest(values, usualSpread);
        if (last.p > splitsAt) return last;
        int since = 0;
        for (ChangePoint behind = strongest(values, last.from, values.length, usualSpread);
                behind.p <= splitsAt;
                behind = strongest(values, last.from, values.length, usualSpread)) {
            since = last.from;
            last = behind;
        }
        // The level before it begins with the change before it.
        for (ChangePoint before = strongest(values, since, last.from, usualSpread);
                before.p <= splitsAt;
                before = strongest(values, since, last.from, usualSpread)) since = before.from;
        ChangePoint again = strongest(values, since, values.length, usualSpread);
        return again.p <= last.p ? again : last;
    }

    private static ChangePoint strongest(double[] values, int from, int to, double usualSpread) {
        int size = to - from;
        if (size < LEAST_BEFORE + LEAST_AFTER) return NONE;
        double sum = 0;
        double squares = 0;
        for (int i = from; i < to; i++) {
            sum += values[i];
            squares += values[i] * values[i];
        }
        double best = 0;
        int at = -1;
        double before = 0;
        int freedom = size - 2 + PRIOR_FREEDOM;
        for (int i = from; i <= to - LEAST_AFTER; i++) {
            int left = i - from;
            int right = size - left;
            if (left >= LEAST_BEFORE) {
                double difference = (sum - before) / right - before / left;
                double within = Math.max(0, squares - before * before / left - (sum - before) * (sum - before) / right);
                double spread = Math.sqrt((PRIOR_FREEDOM * usualSpread * usualSpread + within) / freedom);
                double t = difference / (spread * Math.sqrt(1.0 / left + 1.0 / right));
                if (Math.abs(t) > Math.abs(best)) {
                    best = t;
                    at = i;
                }
            }
            before += values[i];
        }
        if (at < 0) return NONE;
        double after = 0;
        for (int i = at; i < to; i++) after += values[i];
        double difference = after / (to - at) - (sum - after) / (at - from);
        var distribution = new TDistribution(freedom);
        double error = Math.abs(difference / best) * distribution.inverseCumulativeProbability(0.975);
        return new ChangePoint(at, from, difference, error, probability(Math.abs(best), distribution, size));
    }

    /** How likely the largest of all the differences in so many values is as large as {@code t}. */
    private static double probability(double t, TDistribution distribution, int size) {
        double one = distribution.cumulativeProbability(-t);
        if (one < SURE) return one; // where the inverse has no digits left, and nobody asks for more
        double z = -NORMAL.inverseCumulativeProbability(one);
        if (z < LEAST_Z) return 1; // as of nearly all, and nobody asks how likely they are
        double sum = 0;
        for (int k = LEAST_BEFORE; k <= size - LEAST_AFTER; k++) {
            double part = (double) k / size;
            double around = part * (1 - part);
            sum += overshoot(z / Math.sqrt(size * around)) / around / size;
        }
        return Math.min(1, z * NORMAL.density(z) * sum);
    }

    /** By the approximation of Siegmund and Yakir (2007). */
    private static double overshoot(double x) {
        double half = x / 2;
        double below = NORMAL.cumulativeProbability(half);
        return (below - 0.5) / half / (half * below + NORMAL.density(half));
    }

    /** The standard deviation of {@code values} around their level, whatever that does: by the differences of neighbours. */
    static double spread(double[] values) {
        if (values.length < 3) return Double.NaN;
        double[] differences = new double[values.length - 1];
        for (int i = 1; i < values.length; i++) differences[i - 1] = Math.abs(values[i] - values[i - 1]);
        return TO_DEVIATION * median(differences) / Math.sqrt(2);
    }

    /** {@code values}, of which single ones that are far out are drawn in. */
    static double[] drawnIn(double[] values) {
        double farthest = FARTHEST * spread(values);
        if (!(farthest > 0)) return values;
        double[] drawn = new double[values.length];
        double[] near = new double[Math.min(values.length, 2 * AROUND + 1)];
        for (int i = 0; i < values.length; i++) {
            int from = Math.max(0, Math.min(i - AROUND, values.length - near.length));
            System.arraycopy(values, from, near, 0, near.length);
            double middle = middleOf(near);
            drawn[i] = Math.max(middle - farthest, Math.min(middle + farthest, values[i]));
        }
        return drawn;
    }

    /** The median of few, which are sorted by it. */
    private static double middleOf(double[] few) {
        for (int i = 1; i < few.length; i++) {
            double one = few[i];
            int at = i;
            for (; at > 0 && few[at - 1] > one; at--) few[at] = few[at - 1];
            few[at] = one;
        }
        int half = few.length / 2;
        return few.length % 2 == 1 ? few[half] : (few[half - 1] + few[half]) / 2;
    }

    /** No number where there are none. */
    static double median(double[] values) {
        return new Median().evaluate(values);
    }
}
