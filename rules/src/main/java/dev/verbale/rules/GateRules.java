package dev.verbale.rules;

import org.jspecify.annotations.Nullable;

/**
 * How much is too much. What is null is not asked for; with nothing asked for, no test may need attention.
 *
 * @param failures how many tests may need attention
 * @param newFailures how many of them may be new against the baseline
 * @param unlabelled how many may have no label
 * @param expired how many may be known by a rule whose day is over
 * @param flaky how many tests may have passed only on a later attempt
 * @param minTests how many tests there must be
 * @param slower how many tests may be slower than noise explains
 * @since 0.2.0
 */
public record GateRules(
        @Nullable Integer failures,
        @Nullable Integer newFailures,
        @Nullable Integer unlabelled,
        @Nullable Integer expired,
        @Nullable Integer flaky,
        @Nullable Integer minTests,
        @Nullable Integer slower) {

    /** No test may need attention, and there must be one. */
    public static final GateRules STRICT = new GateRules(0, null, null, null, null, 1, null);

    /** Whether it compares with an earlier run. */
    public boolean needsBaseline() {
        return newFailures != null || slower != null;
    }
}
