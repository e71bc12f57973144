package dev.verbale.results;

import dev.verbale.vocabulary.Outcome;
import java.util.Collections;
import java.util.Map;
import java.util.TreeMap;

/**
 * What a run came to, in numbers: whoever counts anything of a run takes it from here.
 *
 * @param byOutcome how many tests ended how, each once; only the outcomes that occur, from the calmest to the gravest
 * @param flaky how many of those that passed did so only on a later attempt
 * @param broken how many classes broke outside their tests; these are no tests, and are in no other number but {@link #needingAttention}
 * @since 0.2.0
 */
public record Counts(Map<Outcome, Integer> byOutcome, int flaky, int broken) {

    public Counts {
        byOutcome = Collections.unmodifiableMap(new TreeMap<>(byOutcome));
    }

    /** Each test once: of several attempts the one that counts. */
    static Counts of(Run run) {
        Map<Outcome, Integer> counts = new TreeMap<>();
        for (TestResult test : run.tests()) if (!test.superseded()) counts.merge(test.outcome(), 1, Integer::sum);
        return new Counts(counts, run.flaky().size(), run.brokenContainers().size());
    }

    /** How many tests ended so; 0 where none did. */
    public int of(Outcome outcome) {
        return byOutcome.getOrDefault(outcome, 0);
    }

    /** How many tests there are. */
    public int all() {
        return byOutcome.values().stream().mapToInt(Integer::intValue).sum();
    }

    /** How many tests somebody has to look at. */
    public int failing() {
        int count = 0;
        for (var entry : byOutcome.entrySet()) if (entry.getKey().needsAttention()) count += entry.getValue();
        return count;
    }

    /** How much somebody has to look at: the tests that fail, and the classes that broke outside theirs. */
    public int needingAttention() {
        return failing() + broken;
    }
}
