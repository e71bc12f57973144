package dev.verbale.spi;

import dev.verbale.event.Outcome;
import org.jspecify.annotations.Nullable;

/**
 * How a test or a container ended.
 *
 * @param outcome or null: then it follows from {@code failure}
 * @param reason why it was skipped or aborted, where that is known; else an assumption's own message
 * @param failure what was thrown, where something was
 * @since 0.2.0
 */
public record TestEnd(
        @Nullable Outcome outcome,
        @Nullable String reason,
        @Nullable Throwable failure) {

    /** It did what it should. */
    public static TestEnd passed() {
        return new TestEnd(Outcome.PASSED, null, null);
    }

    /** It was not run, and {@code reason} says why. */
    public static TestEnd skipped(String reason) {
        return new TestEnd(Outcome.SKIPPED, reason, null);
    }

    /** It was given up: an assumption did not hold. */
    public static TestEnd aborted(@Nullable Throwable assumption) {
        return new TestEnd(
                Outcome.ABORTED, null, assumption); // the recorder asks it for its message, and stands what it does
    }

    /** It failed for a reason that its author knows. */
    public static TestEnd expectedFailure(String reason, Throwable failure) {
        return new TestEnd(Outcome.EXPECTED_FAILURE, reason, failure);
    }

    /** It passed although its author expected a failure. */
    public static TestEnd passedUnexpectedly(String reason) {
        return new TestEnd(Outcome.PASSED, reason, null);
    }

    /** It threw; whether that is a failure, an error or an assumption follows from what was thrown. */
    public static TestEnd threw(Throwable failure) {
        return new TestEnd(null, null, failure);
    }
}
