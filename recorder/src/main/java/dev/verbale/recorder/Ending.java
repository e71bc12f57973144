package dev.verbale.recorder;

import dev.verbale.event.Outcome;
import org.jspecify.annotations.Nullable;

/**
 * How a test or a container ended.
 *
 * @param outcome or null: then it follows from {@code failure}
 * @param reason why it was skipped or aborted, where that is known; else an assumption's own message
 * @param failure what was thrown, where something was
 */
public record Ending(
        @Nullable Outcome outcome,
        @Nullable String reason,
        @Nullable Throwable failure) {

    /** It did what it should. */
    public static Ending passed() {
        return new Ending(Outcome.PASSED, null, null);
    }

    /** It was not run, and {@code reason} says why. */
    public static Ending skipped(String reason) {
        return new Ending(Outcome.SKIPPED, reason, null);
    }

    /** It was given up: an assumption did not hold. */
    public static Ending aborted(@Nullable Throwable assumption) {
        return new Ending(
                Outcome.ABORTED, null, assumption); // the recorder asks it for its message, and stands what it does
    }

    /** It failed as it was announced to fail. */
    public static Ending expected(String reason, Throwable failure) {
        return new Ending(Outcome.EXPECTED, reason, failure);
    }

    /** It passed although it was announced to fail. */
    public static Ending passedAgainstExpectation(String reason) {
        return new Ending(Outcome.PASSED, reason, null);
    }

    /** It threw; whether that is a failure, an error or an assumption follows from what was thrown. */
    public static Ending threw(Throwable failure) {
        return new Ending(null, null, failure);
    }
}
