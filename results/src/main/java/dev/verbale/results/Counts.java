package dev.verbale.results;

import dev.verbale.vocabulary.Outcome;
import java.util.Collection;
import java.util.Collections;
import java.util.Map;
import java.util.TreeMap;

/**
 * How many tests ended how.
 *
 * @param byOutcome only the outcomes that occur, from the calmest to the gravest
 * @since 0.2.0
 */
public record Counts(Map<Outcome, Integer> byOutcome) {

    public Counts {
        byOutcome = Collections.unmodifiableMap(new TreeMap<>(byOutcome));
    }

    /** Each test once: of several attempts the last counts. */
    static Counts of(Collection<TestResult> tests) {
        Map<Outcome, Integer> counts = new TreeMap<>();
        for (TestResult test : tests) if (!test.superseded()) counts.merge(test.outcome(), 1, Integer::sum);
        return new Counts(counts);
    }

    /** How many ended so; 0 where none did. */
    public int of(Outcome outcome) {
        return byOutcome.getOrDefault(outcome, 0);
    }

    /** How many there are. */
    public int all() {
        return byOutcome.values().stream().mapToInt(Integer::intValue).sum();
    }

    /** How many somebody has to look at. */
    public int needingAttention() {
        int count = 0;
        for (var entry : byOutcome.entrySet()) if (entry.getKey().needsAttention()) count += entry.getValue();
        return count;
    }
}
