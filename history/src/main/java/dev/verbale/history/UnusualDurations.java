package dev.verbale.history;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.hipparchus.distribution.continuous.TDistribution;
import org.jspecify.annotations.Nullable;

/**
 * Which tests of one run took another time than they usually do, beside what the whole run took. Where a test's last passes are known, its
 * time is set beside their median and spread (a moderated t; Smyth 2004); where they are not, beside its time in the baseline and the spread
 * of all such pairs. Of all tests that are named, one in forty may be chance, see {@link Discoveries}.
 *
 * @param speed how many times as slow the whole run was as usual, such as 1.6
 * @param slower the keys of the tests that were slower
 * @param faster the keys of those that were faster
 * @since 0.2.0
 */
public record UnusualDurations(double speed, List<String> slower, List<String> faster) {

    private static final int MAX_PASSES = 20;
    private static final int MIN_PASSES = 5;
    private static final double LEAST_SPREAD = 0.05;
    private static final double LEAST_SPREAD_OF_PAIRS = 0.15;
    private static final int LEAST_PAIRS = 10;
    private static final double LEAST_CHANGE = Math.log(1.25);
    private static final double LEAST_MILLIS = 100;
    private static final double LEAST_CHANGE_UNKNOWN = Math.log(1.5);
    private static final double LEAST_MILLIS_UNKNOWN = 500;

    public UnusualDurations {
        slower = List.copyOf(slower);
        faster = List.copyOf(faster);
    }

    /** A test, what it took beside what it takes, and how likely that is by chance. */
    private record Beside(String key, double usual, double now, double p, boolean isKnown) {
        private boolean isLarge() {
            double millis = Math.abs(Math.exp(now) - Math.exp(usual));
            return isKnown
                    ? Math.abs(now - usual) >= LEAST_CHANGE && millis >= LEAST_MILLIS
                    : Math.abs(now - usual) >= LEAST_CHANGE_UNKNOWN && millis >= LEAST_MILLIS_UNKNOWN;
        }
    }

    /**
     * @param before the baseline's tests by the key that each has in {@code after}
     * @param past what is known of runs before {@code after}; null for nothing
     */
    public static UnusualDurations of(Map<String, TestDigest> before, RunDigest after, @Nullable History past) {
        List<TestDigest> pairs = new ArrayList<>();
        for (TestDigest test : after.tests()) {
            TestDigest earlier = before.get(test.key());
            if (earlier != null && isPassed(test) && isPassed(earlier)) pairs.add(test);
        }
        List<Beside> all = new ArrayList<>();
        double speed = known(pairs, past, all);
        double ofPairs = unknown(pairs, before, all);
        double threshold =
                Discoveries.threshold(all.stream().mapToDouble(Beside::p).toArray());
        List<String> slower = new ArrayList<>();
        List<String> faster = new ArrayList<>();
        for (Beside one : all)
            if (one.p <= threshold && one.isLarge()) (one.now > one.usual ? slower : faster).add(one.key);
        return new UnusualDurations(Double.isNaN(speed) ? ofPairs : speed, slower, faster);
    }

    private static boolean isPassed(TestDigest test) {
        return test.outcome().equals(Outcome.PASSED) && !test.recovered();
    }

    private static double log(TestDigest test) {
        return Math.log(Math.max(1, test.millis()));
    }

    /** @return the speed of the run; no number where nothing is known of enough tests */
    private static double known(List<TestDigest> tests, @Nullable History past, List<Beside> into) {
        if (past == null) return Double.NaN;
        UsualTimes times = past.usualTimes(MAX_PASSES);
        int runs = times.runs();
        Map<String, Durations> known = new HashMap<>();
        List<Durations> all = new ArrayList<>();
        for (TestDigest test : tests) {
            Durations passes = times.of(test.key());
            if (passes == null || passes.run().length < MIN_PASSES) continue;
            Durations with = passes.with(runs, test.origin().worker(), log(test));
            known.put(test.key(), with);
            all.add(with);
        }
        if (all.isEmpty()) return Double.NaN;
        var shared = new SharedSpeed(runs + 1, all);
        double[] spreads = all.stream()
                .mapToDouble(one -> ChangePoint.spread(past(shared.without(one))))
                .filter(it -> it > 0)
                .toArray();
        double usual = Math.max(LEAST_SPREAD, spreads.length == 0 ? 0.1 : ChangePoint.median(spreads));
        known.forEach((key, durations) -> {
            double[] own = shared.without(durations);
            double[] passes = past(own);
            double now = own[own.length - 1];
            double median = ChangePoint.median(passes);
            if (Math.max(median, now) < SharedSpeed.LEAST_LOG_MILLIS) return;
            int freedom = passes.length - 1;
            double its = ChangePoint.spread(passes);
            double spread = Math.sqrt((ChangePoint.PRIOR_FREEDOM * usual * usual + freedom * its * its)
                    / (ChangePoint.PRIOR_FREEDOM + freedom));
            double t = (now - median) / (spread * Math.sqrt(1 + 1.0 / passes.length));
            into.add(new Beside(key, median, now, probability(t, freedom + ChangePoint.PRIOR_FREEDOM), true));
        });
        return shared.factor(runs);
    }

    private static double[] past(double[] own) {
        return Arrays.copyOf(own, own.length - 1);
    }

    /** Of tests of which only one earlier time is known: it is beside the spread of all such pairs. */
    private static double unknown(List<TestDigest> tests, Map<String, TestDigest> before, List<Beside> into) {
        List<String> known = into.stream().map(Beside::key).toList();
        var isKnown = new java.util.HashSet<>(known);
        List<Double> differences = new ArrayList<>();
        for (TestDigest test : tests) {
            double earlier = log(java.util.Objects.requireNonNull(before.get(test.key())));
            if (Math.max(earlier, log(test)) >= SharedSpeed.LEAST_LOG_MILLIS) differences.add(log(test) - earlier);
        }
        double[] all = differences.stream().mapToDouble(Double::doubleValue).toArray();
        double shared = all.length < LEAST_PAIRS ? 0 : ChangePoint.median(all);
        double spread = LEAST_SPREAD_OF_PAIRS;
        if (all.length >= LEAST_PAIRS)
            spread = Math.max(
                    spread,
                    ChangePoint.TO_DEVIATION
                            * ChangePoint.median(Arrays.stream(all)
                                    .map(one -> Math.abs(one - shared))
                                    .toArray()));
        for (TestDigest test : tests) {
            if (isKnown.contains(test.key())) continue;
            double earlier = log(java.util.Objects.requireNonNull(before.get(test.key())));
            double now = log(test) - shared;
            if (Math.max(earlier, now) < SharedSpeed.LEAST_LOG_MILLIS) continue;
            into.add(new Beside(
                    test.key(), earlier, now, probability((now - earlier) / spread, ChangePoint.PRIOR_FREEDOM), false));
        }
        return Math.exp(shared);
    }

    private static double probability(double t, int freedom) {
        return 2 * new TDistribution(freedom).cumulativeProbability(-Math.abs(t));
    }
}
