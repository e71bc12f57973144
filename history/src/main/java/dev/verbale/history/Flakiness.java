package dev.verbale.history;

/**
 * Whether a test fails now and then without being broken, and how often.
 *
 * <p>Each test is taken as one that is steady, flaky at some rate, or broken, and that may change from one to another between two runs; what
 * its runs say of that is the posterior of a hidden Markov model (Rabiner 1989), in which each attempt counts. Failures that many tests
 * {@linkplain Disturbance shared} count neither way.
 *
 * @param probability how likely it is flaky, or was in one of its newest runs, from 0 to 1
 * @param brokenProbability how likely it is broken at its newest run, from 0 to 1
 * @param isFlaky whether it is among those that are named: of all that are, one in twenty may be steady or broken
 * @param failures in how many of {@code runs} an attempt failed
 * @param runs how many runs it was flaky in, as far as they tell
 * @param rate how often an attempt fails, from 0 to 1
 * @param low the lower end of the 95 % interval of {@code rate}
 * @param high its upper end
 * @since 0.2.0
 */
public record Flakiness(
        double probability,
        double brokenProbability,
        boolean isFlaky,
        int failures,
        int runs,
        double rate,
        double low,
        double high) {

    /** Of a test that never failed but with others. */
    public static final Flakiness STEADY = new Flakiness(0, 0, false, 0, 0, 0, 0, 0);

    Flakiness named(boolean named) {
        return named == isFlaky
                ? this
                : new Flakiness(probability, brokenProbability, named, failures, runs, rate, low, high);
    }

    /** Such as {@code fails 1 in 9}. */
    public String sentence() {
        if (rate >= 0.4) return String.format(java.util.Locale.ROOT, "fails %.0f in 10", rate * 10);
        return String.format(java.util.Locale.ROOT, "fails 1 in %.0f", 1 / Math.max(rate, 0.01));
    }
}
