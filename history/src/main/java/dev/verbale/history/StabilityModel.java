package dev.verbale.history;

import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Tells steady, flaky and broken tests apart: a hidden Markov model (Rabiner, "A tutorial on hidden Markov models", Proceedings of the IEEE
 * 77(2), 1989) whose states are steady, flaky at one of {@value #RATES} rates, and broken. Between two runs a test may change. How often tests
 * of this suite do, is learned from all of them (Baum and Welch), beside a little that is known of suites: a team that mends within a day
 * has single failures that are no flakiness, one that does not has none.
 */
final class StabilityModel {

    static final int RATES = 16;
    private static final int STATES = RATES + 2;
    private static final int STEADY = RATES;
    private static final int BROKEN = RATES + 1;
    private static final int ROUNDS = 4;
    /** Of more tests every so-manieth tells the same. */
    private static final int ENOUGH_TO_LEARN = 400;

    static final int MAX_TRIALS = 150;
    /** A test that was flaky in one of so many newest runs is: that it has calmed since, or broken, shows later. */
    private static final int RECENT = 20;

    private static final double LEAST_RATE = 0.01;
    private static final double MAX_RATE = 0.85;
    private static final double FAILS_BROKEN = 0.995;

    private static final double BROKEN_AT_FIRST = 0.02;
    private static final double MAX_NOISE = 0.005;
    /** Of all tests that are named one in twenty may be none: the share that is expected (Newton et al. 2004). */
    private static final double FALSE_SHARE = 0.05;

    private static final double LEAST_PROBABILITY = 0.3;
    /** Of the interval, at each side. */
    private static final double TAIL = 0.025;

    private static final int MAX_KNOWN = 4;
    private static final double[] NOTHING_SEEN = new double[STATES];
    private static final double[] RATE = new double[RATES];
    /** The borders between the rates: each stands for what is around it. */
    private static final double[] BORDER = new double[RATES + 1];

    static {
        Arrays.fill(NOTHING_SEEN, 1);
        double least = logit(LEAST_RATE);
        double step = (logit(MAX_RATE) - least) / (RATES - 1);
        for (int i = 0; i < RATES; i++) RATE[i] = logistic(least + i * step);
        for (int i = 0; i <= RATES; i++) BORDER[i] = logistic(least + (i - 0.5) * step);
    }

    // Between two runs, see the priors beside their learning.
    private double noise = 1e-4;
    private double breaks = 5e-4;
    private double mended = 0.25;
    private double startsFlaky = 0.01;
    private double becomesFlaky = 1e-4;
    private double calms = 1e-3;
    private double flakyBreaks = 1e-3;
    private double brokenToFlaky = 5e-3;

    private final Learned learned = new Learned();
    private final double[] @Nullable [] likelihoods = new double[2 * MAX_KNOWN + 2][];

    private static double logit(double p) {
        return Math.log(p / (1 - p));
    }

    private static double logistic(double x) {
        return 1 / (1 + Math.exp(-x));
    }

    /** How often what changed into what, as far as the runs tell. */
    private static final class Learned {
        private double steadyRuns;
        private double flakyRuns;
        private double brokenRuns;
        private double steadyToBroken;
        private double steadyToFlaky;
        private double brokenToSteady;
        private double brokenToFlaky;
        private double flakyToSteady;
        private double flakyToBroken;
        private double noiseFailures;
        private double steadyAttempts;
        private double flakyAtFirst;
        private double tests;

        private void clear() {
            steadyRuns = flakyRuns = brokenRuns = 0;
            steadyToBroken = steadyToFlaky = brokenToSteady = brokenToFlaky = flakyToSteady = flakyToBroken = 0;
            noiseFailures = steadyAttempts = flakyAtFirst = tests = 0;
        }
    }

    /**
     * Of each of {@code tests}, in their order.
     *
     * @param quiet how many other tests there are that never failed
     * @param quietRuns in how many runs they passed, all together
     */
    static Flakiness[] of(List<Trials> tests, long quiet, long quietRuns) {
        var model = new StabilityModel();
        Flakiness[] all = new Flakiness[tests.size()];
        Arrays.fill(all, Flakiness.STEADY);
        int each = Math.max(1, all.length / ENOUGH_TO_LEARN);
        for (int round = 0; round < ROUNDS; round++) {
            model.learned.clear();
            boolean isLast = round == ROUNDS - 1;
            for (int i = 0; i < all.length; i += isLast ? 1 : each)
                if (tests.get(i).failedAlone()) all[i] = model.judged(tests.get(i));
            if (!isLast) model.learn((double) quiet / each, (double) quietRuns / each);
        }
        name(all);
        return all;
    }

    /** The priors are written as counts that are added: of so many in so many. */
    private void learn(double quiet, double quietRuns) {
        Arrays.fill(likelihoods, null);
        Learned of = learned;
        double steady = of.steadyRuns + quietRuns;
        noise = Math.min(MAX_NOISE, (of.noiseFailures + 0.05) / (of.steadyAttempts + quietRuns + 2_000));
        breaks = (of.steadyToBroken + 0.5) / (steady + 1_000);
        mended = (of.brokenToSteady + 1) / (of.brokenRuns + 4);
        startsFlaky = (of.flakyAtFirst + 0.5) / (of.tests + quiet + 50);
        becomesFlaky = (of.steadyToFlaky + 0.2) / (steady + 2_000);
        calms = (of.flakyToSteady + 1.5) / (of.flakyRuns + 750);
        flakyBreaks = (of.flakyToBroken + 0.2) / (of.flakyRuns + 200);
        brokenToFlaky = (of.brokenToFlaky + 0.2) / (of.brokenRuns + 40);
    }

    private static void name(Flakiness[] all) {
        Integer[] order = new Integer[all.length];
        for (int i = 0; i < order.length; i++) order[i] = i;
        Arrays.sort(order, (a, b) -> Double.compare(all[b].probability(), all[a].probability()));
        double wrong = 0;
        for (int i = 0; i < order.length; i++) {
            Flakiness one = all[order[i]];
            wrong += 1 - one.probability();
            if (one.probability() < LEAST_PROBABILITY || wrong / (i + 1) > FALSE_SHARE) break;
            all[order[i]] = one.named(true);
        }
    }

    /** How likely what was seen is in each state; nearly all passed at once. */
    private double[] likelihoods(Trials test, int at) {
        if (test.shared()[at]) return NOTHING_SEEN;
        boolean passed = test.passed()[at];
        int failed = test.failed()[at];
        int known = Math.min(failed, MAX_KNOWN) * 2 + (passed ? 1 : 0);
        double[] before = likelihoods[known];
        if (before != null && failed < MAX_KNOWN) return before;
        double[] likelihood = new double[STATES];
        for (int state = 0; state < STATES; state++) {
            double fails = state == STEADY ? noise : state == BROKEN ? FAILS_BROKEN : RATE[state];
            likelihood[state] = passed ? 1 - fails : 1;
            for (int i = 0; i < failed; i++) likelihood[state] *= fails;
        }
        likelihoods[known] = likelihood;
        return likelihood;
    }

    private Flakiness judged(Trials test) {
        int size = test.run().length;
        double[][] forward = new double[size][STATES];
        double[][] seen = new double[size][];
        for (int t = 0; t < size; t++) {
            seen[t] = likelihoods(test, t);
            if (t == 0) first(forward[0]);
            else step(forward[t - 1], forward[t]);
            double sum = 0;
            for (int state = 0; state < STATES; state++) sum += forward[t][state] *= seen[t][state];
            for (int state = 0; state < STATES; state++) forward[t][state] /= sum;
        }
        double[] backward = new double[STATES];
        Arrays.fill(backward, 1);
        double[] ahead = new double[STATES];
        double failures = 0;
        double runs = 0;
        double recently = 0;
        learned.tests++;
        for (int t = size - 1; t >= 0; t--) {
            double sum = 0;
            double flaky = 0;
            for (int state = 0; state < STATES; state++) {
                double both = forward[t][state] * backward[state];
                sum += both;
                if (state < RATES) flaky += both;
            }
            flaky /= sum;
            if (size - t <= RECENT) recently = Math.max(recently, flaky);
            double steady = forward[t][STEADY] * backward[STEADY] / sum;
            double broken = forward[t][BROKEN] * backward[BROKEN] / sum;
            if (!test.shared()[t]) {
                runs += flaky;
                if (test.failed()[t] > 0) failures += flaky;
                learned.steadyAttempts += steady * (test.failed()[t] + (test.passed()[t] ? 1 : 0));
                learned.noiseFailures += steady * test.failed()[t];
            }
            learned.steadyRuns += steady;
            learned.flakyRuns += flaky;
            learned.brokenRuns += broken;
            if (t == 0) {
                learned.flakyAtFirst += flaky;
                break;
            }
            double scale = 0;
            for (int state = 0; state < STATES; state++) {
                ahead[state] = seen[t][state] * backward[state];
                scale += ahead[state];
            }
            for (int state = 0; state < STATES; state++) ahead[state] /= scale;
            changes(forward[t - 1], ahead);
            back(ahead, backward);
        }
        return flakiness(forward[size - 1], recently, (int) Math.round(failures), (int) Math.round(runs));
    }

    private void first(double[] state) {
        for (int i = 0; i < RATES; i++) state[i] = startsFlaky / RATES;
        state[BROKEN] = BROKEN_AT_FIRST;
        state[STEADY] = 1 - startsFlaky - state[BROKEN];
    }

    private void step(double[] from, double[] to) {
        double entering = (from[STEADY] * becomesFlaky + from[BROKEN] * brokenToFlaky) / RATES;
        double leaving = 0;
        double stays = 1 - calms - flakyBreaks;
        for (int i = 0; i < RATES; i++) {
            to[i] = from[i] * stays + entering;
            leaving += from[i];
        }
        to[STEADY] = from[STEADY] * (1 - breaks - becomesFlaky) + from[BROKEN] * mended + leaving * calms;
        to[BROKEN] = from[BROKEN] * (1 - mended - brokenToFlaky) + from[STEADY] * breaks + leaving * flakyBreaks;
    }

    private void back(double[] ahead, double[] to) {
        double entering = 0;
        for (int i = 0; i < RATES; i++) entering += ahead[i];
        entering /= RATES;
        double stays = 1 - calms - flakyBreaks;
        for (int i = 0; i < RATES; i++) to[i] = ahead[i] * stays + ahead[STEADY] * calms + ahead[BROKEN] * flakyBreaks;
        to[STEADY] = ahead[STEADY] * (1 - breaks - becomesFlaky) + ahead[BROKEN] * breaks + entering * becomesFlaky;
        to[BROKEN] = ahead[BROKEN] * (1 - mended - brokenToFlaky) + ahead[STEADY] * mended + entering * brokenToFlaky;
    }

    private void changes(double[] before, double[] ahead) {
        double flakyAhead = 0;
        double flakyBefore = 0;
        double sum = 0;
        double stays = 1 - calms - flakyBreaks;
        for (int i = 0; i < RATES; i++) {
            flakyAhead += ahead[i] / RATES;
            flakyBefore += before[i];
            sum += before[i] * stays * ahead[i];
        }
        double steadyBroken = before[STEADY] * breaks * ahead[BROKEN];
        double steadyFlaky = before[STEADY] * becomesFlaky * flakyAhead;
        double brokenSteady = before[BROKEN] * mended * ahead[STEADY];
        double brokenFlaky = before[BROKEN] * brokenToFlaky * flakyAhead;
        double flakySteady = flakyBefore * calms * ahead[STEADY];
        double flakyBroken = flakyBefore * flakyBreaks * ahead[BROKEN];
        sum += steadyBroken + steadyFlaky + brokenSteady + brokenFlaky + flakySteady + flakyBroken;
        sum += before[STEADY] * (1 - breaks - becomesFlaky) * ahead[STEADY];
        sum += before[BROKEN] * (1 - mended - brokenToFlaky) * ahead[BROKEN];
        learned.steadyToBroken += steadyBroken / sum;
        learned.steadyToFlaky += steadyFlaky / sum;
        learned.brokenToSteady += brokenSteady / sum;
        learned.brokenToFlaky += brokenFlaky / sum;
        learned.flakyToSteady += flakySteady / sum;
        learned.flakyToBroken += flakyBroken / sum;
    }

    private static Flakiness flakiness(double[] newest, double recently, int failures, int runs) {
        double flaky = 0;
        double mean = 0;
        for (int i = 0; i < RATES; i++) {
            flaky += newest[i];
            mean += newest[i] * RATE[i];
        }
        if (flaky < 1e-9) return new Flakiness(0, newest[BROKEN], false, failures, runs, 0, 0, 0);
        return new Flakiness(
                recently,
                newest[BROKEN],
                false,
                failures,
                runs,
                mean / flaky,
                quantile(newest, flaky, TAIL),
                quantile(newest, flaky, 1 - TAIL));
    }

    /** Between the borders of a rate in a straight line. */
    private static double quantile(double[] newest, double flaky, double part) {
        double below = 0;
        for (int i = 0; i < RATES; i++) {
            double here = newest[i] / flaky;
            if (below + here >= part)
                return BORDER[i] + (BORDER[i + 1] - BORDER[i]) * (part - below) / Math.max(here, 1e-12);
            below += here;
        }
        return BORDER[RATES];
    }
}
