package dev.verbale.event;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A test ended.
 *
 * @param reason why it was skipped or aborted, where it was
 * @param failure why it failed, where it did
 * @param blockedBy the keys of the tests or containers because of which it was not run
 * @since 0.2.0
 */
public record TestEnded(
        long at,
        int id,
        Outcome outcome,
        @Nullable String reason,
        @Nullable Failure failure,
        List<String> blockedBy) implements Event {

    public TestEnded {
        blockedBy = List.copyOf(blockedBy);
    }

    /** One that nothing blocked. */
    public TestEnded(long at, int id, Outcome outcome, @Nullable String reason, @Nullable Failure failure) {
        this(at, id, outcome, reason, failure, List.of());
    }
}
