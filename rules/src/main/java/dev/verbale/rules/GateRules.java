package dev.verbale.rules;

import dev.verbale.history.compare.Comparison;
import org.jspecify.annotations.Nullable;

/**
 * How much is too much. What is null is not asked for; with nothing asked for, no test may need attention. Whatever is asked for: where
 * a file does not allow it, there must be a test, each JVM must have come to its end, and nothing may be missing in the record.
 *
 * @param failures how many tests, and classes outside their tests, may need attention
 * @param newFailures how many of them may be new, which is: did not need attention in the baseline
 * @param exceptFlaky of tests that were flaky before as surely as that, in per cent, new failures do not count; null where all do
 * @param unlabelled how many may have no label
 * @param expired how many may be known by a rule whose day is over
 * @param flaky how many tests may have passed only on a later attempt
 * @param minTests how many tests there must be
 * @param slower how many tests may be slower than noise explains
 * @param vanished how many tests of the baseline may not be there
 * @param unclosed how many journals may have no end: their JVM was killed or still runs, or they could not be read to the end
 * @param shards how many shards may be absent that others of a joined run promise
 * @param missing how many events may be missing that could not be recorded
 * @since 0.2.0
 */
public record GateRules(
        @Nullable Integer failures,
        @Nullable Integer newFailures,
        @Nullable Integer exceptFlaky,
        @Nullable Integer unlabelled,
        @Nullable Integer expired,
        @Nullable Integer flaky,
        @Nullable Integer minTests,
        @Nullable Integer slower,
        @Nullable Integer vanished,
        int unclosed,
        int shards,
        long missing) {

    /** No test may need attention, there must be one, and the record must be whole. */
    public static final GateRules STRICT = new GateRules(0, null, null, null, null, null, 1, null, null, 0, 0, 0);

    /** Whether a new failure is one that does not count, for its test was flaky before. */
    boolean excepts(Comparison.Change change) {
        return exceptFlaky != null && change.isOfFlaky() && change.flakiness().probability() * 100 >= exceptFlaky;
    }

    /** Whether it compares with an earlier run. */
    public boolean needsBaseline() {
        return newFailures != null || slower != null || vanished != null;
    }
}
