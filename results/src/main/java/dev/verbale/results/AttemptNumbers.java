package dev.verbale.results;

import dev.verbale.event.Outcome;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Numbers the attempts of what ran several times. The same key in one run is the same test, whatever its attempts came to and whichever
 * JVM made them: the last one counts.
 */
final class AttemptNumbers {

    private final Map<String, Attempts> attempts = new HashMap<>();
    private final List<TestResult.Attempt[]> byJournal = new ArrayList<>();

    AttemptNumbers() {}

    /** Of tests that nobody has read yet. */
    static AttemptNumbers of(List<TestLines> journals) {
        record Seen(int journal, int test) {}
        var numbers = new AttemptNumbers();
        List<Seen> all = new ArrayList<>();
        for (int journal = 0; journal < journals.size(); journal++) {
            TestLines lines = journals.get(journal);
            numbers.byJournal.add(new TestResult.Attempt[lines.count()]);
            for (int test = 0; test < lines.count(); test++) {
                numbers.count(lines.key(test));
                all.add(new Seen(journal, test));
            }
        }
        all.sort(Comparator.comparing(one -> journals.get(one.journal()).started(one.test())));
        for (Seen one : all) {
            TestLines lines = journals.get(one.journal());
            numbers.byJournal.get(one.journal())[one.test()] =
                    numbers.next(lines.key(one.test()), lines.outcome(one.test()));
        }
        return numbers;
    }

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

    /** Of a test of a journal; one that came since it was looked through is the only one. */
    TestResult.Attempt of(int journal, int test) {
        TestResult.Attempt[] numbered = byJournal.get(journal);
        return test < numbered.length ? numbered[test] : TestResult.Attempt.ONLY;
    }
}
