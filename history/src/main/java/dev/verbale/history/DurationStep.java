package dev.verbale.history;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * That a test takes another time than it did, since a run and up to the newest, beside what the whole runs took: see {@link ChangePoint}.
 *
 * @param since the first run in which it did
 * @param before the median of the runs before, back to the change before this one
 * @param after the median since
 * @param factor how many times as long, such as 1.4; below 1 where it is faster now
 * @param low the lower end of the 95 % interval of {@code factor}
 * @param high its upper end
 * @param p how likely such a step is by chance
 * @since 0.2.0
 */
public record DurationStep(
        RunSummary since, Duration before, Duration after, double factor, double low, double high, double p) {

    /** A change that is older is what the test takes. */
    static final int MAX_RUNS = 100;

    private static final double LEAST_CHANGE = 0.10;

    /** Of so few runs two that were held up by something look like a change, and of ten thousand tests some have two. */
    private static final int FEW = 8;

    /**
     * What changed in each of {@code tests}, of at most {@value #MAX_RUNS} runs, null where nothing did that is no chance, is above a tenth, and holds up to now. Of all that are
     * not null one in forty may be chance.
     */
    static List<@Nullable DurationStep> of(List<RunSummary> runs, List<Durations> tests) {
        var shared = new SharedSpeed(runs.size(), tests);
        List<double[]> own = tests.stream().map(shared::without).toList();
        double[] spreads = own.stream()
                .mapToDouble(ChangePoint::spread)
                .filter(spread -> spread > 0)
                .toArray();
        double usual = spreads.length == 0 ? 0.1 : Math.max(0.02, ChangePoint.median(spreads));
        List<double[]> drawn = own.stream().map(ChangePoint::drawnIn).toList();
        double[] p = new double[own.size()];
        for (int i = 0; i < p.length; i++)
            p[i] = isQuick(own.get(i))
                    ? Double.NaN
                    : ChangePoint.strongest(drawn.get(i), usual).p();
        double threshold =
                Discoveries.threshold(Arrays.stream(p).filter(one -> one >= 0).toArray());
        List<@Nullable DurationStep> steps = new ArrayList<>();
        for (int i = 0; i < p.length; i++) {
            ChangePoint last = p[i] <= threshold ? ChangePoint.last(drawn.get(i), usual, threshold) : null;
            steps.add(last == null ? null : step(runs, tests.get(i), own.get(i), last));
        }
        return steps;
    }

    private static boolean isQuick(double[] logMillis) {
        return Arrays.stream(logMillis).max().orElse(0) < SharedSpeed.LEAST_LOG_MILLIS;
    }

    /** Whether all runs since lie nearer to the new level than to the one before; of five or more, all but one. */
    private static boolean isOfNearlyAll(double[] own, ChangePoint change, double before) {
        double half = change.difference() / 2;
        int nearer = 0;
        for (int i = change.from(); i < own.length; i++) if ((own[i] - before - half) / half > 0) nearer++;
        int runs = own.length - change.from();
        return nearer >= runs - runs / 5;
    }

    private static @Nullable DurationStep step(
            List<RunSummary> runs, Durations test, double[] own, ChangePoint change) {
        double factor = Math.exp(change.difference());
        double before = ChangePoint.median(Arrays.copyOfRange(own, change.since(), change.from()));
        double after = ChangePoint.median(Arrays.copyOfRange(own, change.from(), own.length));
        if (own.length - change.from() < FEW && !isOfNearlyAll(own, change, before)) return null;
        if (Math.abs(factor - 1) <= LEAST_CHANGE || Math.max(before, after) < SharedSpeed.LEAST_LOG_MILLIS) return null;
        return new DurationStep(
                runs.get(test.run()[change.from()]),
                Duration.ofMillis(Math.round(Math.exp(before))),
                Duration.ofMillis(Math.round(Math.exp(after))),
                factor,
                Math.exp(change.difference() - change.error()),
                Math.exp(change.difference() + change.error()),
                change.p());
    }
}
