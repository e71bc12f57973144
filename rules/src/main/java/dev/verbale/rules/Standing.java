package dev.verbale.rules;

/**
 * What a failure is today. Each failure is one of them, in this order of what to look at.
 *
 * @since 0.2.0
 */
public enum Standing {
    /** It did not fail in the baseline, and nothing explains it. */
    NEW("New"),
    /** It is new together with many others: the run was not itself. */
    NEW_TOGETHER("New, and many at once: the run was not itself"),
    /** It is new, of a test that fails now and then anyway. */
    NEW_OF_FLAKY("New, of tests that are flaky anyway"),
    /** There is no baseline: it may be new or not. */
    UNCOMPARED("Failures"),
    /** It failed in the baseline too, and no rule knows it. */
    STILL("Still failing"),
    /** It failed in the baseline too, and a rule knows it until a day that is not over, or it is new and a rule does. */
    KNOWN("Known");

    private final String text;

    Standing(String text) {
        this.text = text;
    }

    /** As a reader knows it; what stands above failures of this kind. */
    public String text() {
        return text;
    }
}
