package dev.verbale.results;

import dev.verbale.vocabulary.Outcome;
import java.util.HashMap;
import java.util.Map;

/**
 * Numbers the attempts of what ran several times. The same key in one run is the same test, whatever its attempts came to and whichever
 * JVM made them: the last one counts.
 */
final class AttemptNumbers {

    private final Map<String, Attempts> attempts = new HashMap<>();

    /** There is one more of {@code key}; before the first is numbered. */
    void count(String key) {
        attempts.computeIfAbsent(key, first -> new Attempts()).all++;
    }

    /** Of the next attempt, in the order in which they started. */
    TestResult.Attempt next(String key, Outcome outcome) {
        Attempts one = attempts.computeIfAbsent(key, uncounted -> new Attempts());
        int number = ++one.numbered;
        boolean again = number < one.all;
        boolean recovered = one.oneFailed && outcome.equals(Outcome.PASSED);
        one.oneFailed |= outcome.needsAttention();
        return number == 1 && !again ? TestResult.Attempt.ONLY : new TestResult.Attempt(number, again, recovered);
    }

    /** Of one test. */
    private static final class Attempts {
        int all;
        int numbered;
        /** Among those that were numbered. */
        boolean oneFailed;
    }
}
