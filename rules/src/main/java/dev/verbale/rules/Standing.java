package dev.verbale.rules;

/**
 * What a failure is today. Each failure is one of them, in this order of what to look at.
 *
 * @since 0.2.0
 */
public enum Standing {
    /** It did not fail in the baseline, and nothing explains it. */
    NEW,
    /** It is new together with many others: the run was not itself. */
    NEW_TOGETHER,
    /** It is new, of a test that fails now and then anyway. */
    NEW_OF_FLAKY,
    /** It failed in the baseline too, and no rule knows it. */
    STILL,
    /** It failed in the baseline too, and a rule knows it until a day that is not over, or it is new and a rule does. */
    KNOWN
}
