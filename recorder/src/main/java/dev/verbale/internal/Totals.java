package dev.verbale.internal;

import dev.verbale.event.Outcome;
import java.util.StringJoiner;
import java.util.concurrent.atomic.AtomicIntegerArray;

/** Counts the tests that ended in this JVM. */
final class Totals {

    private final AtomicIntegerArray byOutcome = new AtomicIntegerArray(Outcome.values().length);

    void add(Outcome outcome) {
        byOutcome.incrementAndGet(outcome.ordinal());
    }

    int all() {
        int all = 0;
        for (int i = 0; i < byOutcome.length(); i++) all += byOutcome.get(i);
        return all;
    }

    /** Such as {@code 41 tests: 38 passed, 1 skipped, 2 failed}. */
    String sentence() {
        int all = all();
        var parts = new StringJoiner(", ", (all == 1 ? "1 test: " : all + " tests: "), "");
        for (Outcome outcome : Outcome.values()) {
            int count = byOutcome.get(outcome.ordinal());
            if (count > 0) parts.add(count + " " + outcome.word());
        }
        return parts.toString();
    }
}
