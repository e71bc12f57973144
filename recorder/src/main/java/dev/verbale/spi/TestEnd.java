package dev.verbale.spi;

import dev.verbale.border.SafeCopies;
import dev.verbale.event.Outcome;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How a test or a container ended.
 *
 * @param outcome or null: then it follows from {@code failure}
 * @param reason why it was skipped or aborted, where that is known; else an assumption's own message
 * @param failure what was thrown, where something was
 * @param blockedBy the keys of the tests or containers because of which it was not run
 * @param at when, by {@link Context#now}, where it is recorded later than it was; null for now
 * @since 0.2.0
 */
public record TestEnd(
        @Nullable Outcome outcome,
        @Nullable String reason,
        @Nullable Throwable failure,
        List<String> blockedBy,
        @Nullable Long at) {

    public TestEnd {
        blockedBy = SafeCopies.list(blockedBy);
    }

    /** One that nothing blocked, and that is now. */
    public TestEnd(@Nullable Outcome outcome, @Nullable String reason, @Nullable Throwable failure) {
        this(outcome, reason, failure, List.of(), null);
    }

    /** It did what it should. */
    public static TestEnd passed() {
        return new TestEnd(Outcome.PASSED, null, null);
    }

    /** It was not run, and {@code reason} says why. */
    public static TestEnd skipped(String reason) {
        return new TestEnd(Outcome.SKIPPED, reason, null);
    }

    /** It was not run, for what has the keys {@code blockedBy} did not do what it should. */
    public static TestEnd blocked(String reason, List<String> blockedBy) {
        return new TestEnd(Outcome.SKIPPED, reason, null, blockedBy, null);
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

    /** The same at {@code micros}, by {@link Context#now}: a framework may say nothing after the last tear-down. */
    public TestEnd at(long micros) {
        return new TestEnd(outcome, reason, failure, blockedBy, micros);
    }
}
