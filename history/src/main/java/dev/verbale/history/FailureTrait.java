package dev.verbale.history;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.ZoneId;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * What runs have in common in which a test failed or passed on a later attempt only, and others have not: a fact of theirs such as the
 * browser, the worker, the time of day, that it was slow. A hint and no proof; few runs give none.
 *
 * @param name such as {@code browser firefox}
 * @param failedWith of the runs that have it, how many failed
 * @param with how many runs have it
 * @param failedWithout of the other runs, how many failed
 * @param without how many others there are
 * @param probability how probable so great a difference is where nothing is behind it, for all that was looked at; at most 0.01
 * @since 0.2.0
 */
public record FailureTrait(String name, int failedWith, int with, int failedWithout, int without, double probability) {

    private static final double GREATEST_PROBABILITY = 0.01;
    private static final int FEWEST_FAILURES = 4;
    private static final double SMALLEST_DIFFERENCE = 0.4;
    private static final int HOURS = 6;

    /** Of a run. */
    private record Ran(boolean failed, List<String> traits) {}

    /** The one that says most, of the test of that key; empty where none does. */
    public static Optional<FailureTrait> of(String key, List<RunDigest> runs, ZoneId zone) {
        List<Ran> all = new ArrayList<>();
        long slow = slow(key, runs);
        for (RunDigest run : runs)
            for (TestDigest test : run.tests())
                if (test.key().equals(key)
                        && (test.outcome().equals(Outcome.PASSED)
                                || test.outcome().needsAttention()))
                    all.add(new Ran(
                            test.outcome().needsAttention() || test.recovered(), traits(run, test, zone, slow)));
        Map<String, int[]> counts = new LinkedHashMap<>();
        int failed = 0;
        for (Ran ran : all) {
            if (ran.failed()) failed++;
            for (String trait : ran.traits()) {
                int[] count = counts.computeIfAbsent(trait, added -> new int[2]);
                count[0]++;
                if (ran.failed()) count[1]++;
            }
        }
        // What all have, or too few for it to be said of them, is not asked about.
        counts.values().removeIf(count -> count[0] == all.size() || count[0] < FEWEST_FAILURES);
        int looked = Math.max(1, counts.size());
        List<FailureTrait> found = new ArrayList<>();
        for (Map.Entry<String, int[]> one : counts.entrySet()) {
            int with = one.getValue()[0];
            int failedWith = one.getValue()[1];
            if (failedWith < FEWEST_FAILURES) continue;
            double probability = looked * atLeast(failedWith, with, failed, all.size());
            var trait = new FailureTrait(
                    one.getKey(), failedWith, with, failed - failedWith, all.size() - with, Math.min(1, probability));
            if (probability <= GREATEST_PROBABILITY && trait.difference() >= SMALLEST_DIFFERENCE) found.add(trait);
        }
        return found.stream()
                .min(Comparator.comparingDouble(FailureTrait::probability).thenComparing(FailureTrait::name));
    }

    private double difference() {
        return (double) failedWith / with - (double) failedWithout / without;
    }

    /** Such as {@code fails with browser firefox: 6 of 7 runs, and 1 of 30 others}. */
    public String sentence() {
        return "fails with " + name + ": " + failedWith + " of " + with + " runs, and " + failedWithout + " of "
                + without + " others";
    }

    private static List<String> traits(RunDigest run, TestDigest test, ZoneId zone, long slow) {
        List<String> traits = new ArrayList<>();
        run.facts().forEach((name, value) -> traits.add(name + " " + value));
        if (test.origin().worker() >= 0) traits.add("worker " + (test.origin().worker() + 1));
        var began = run.started().atZone(zone);
        int from = began.getHour() / HOURS * HOURS;
        traits.add(String.format(Locale.ROOT, "a start between %02d:00 and %02d:00", from, from + HOURS));
        traits.add("a start on a " + began.getDayOfWeek().getDisplayName(TextStyle.FULL, Locale.ENGLISH));
        if (test.millis() > slow)
            traits.add("more than " + Duration.ofMillis(slow).toMillis() + " ms, twice what it usually takes");
        return traits;
    }

    /** Twice the median. */
    private static long slow(String key, List<RunDigest> runs) {
        List<Integer> millis = new ArrayList<>();
        for (RunDigest run : runs)
            for (TestDigest test : run.tests()) if (test.key().equals(key)) millis.add(test.millis());
        if (millis.isEmpty()) return Long.MAX_VALUE;
        millis.sort(null);
        return 2L * Math.max(1, millis.get(millis.size() / 2));
    }

    /**
     * How probable it is that of {@code marked} among {@code all}, at least {@code found} are among {@code drawn}: Fisher's exact test,
     * one-sided.
     *
     * @see <a href="https://doi.org/10.2307/2340521">Fisher, The Logic of Inductive Inference (1935)</a>
     */
    static double atLeast(int found, int drawn, int marked, int all) {
        double sum = 0;
        for (int i = found; i <= Math.min(drawn, marked); i++)
            if (drawn - i <= all - marked)
                sum += Math.exp(chosen(marked, i) + chosen(all - marked, drawn - i) - chosen(all, drawn));
        return Math.min(1, sum);
    }

    /** The logarithm of how many ways there are to choose so many. */
    private static double chosen(int of, int some) {
        double log = 0;
        for (int i = 1; i <= some; i++) log += Math.log(of - some + i) - Math.log(i);
        return log;
    }
}
