package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * A test ended.
 *
 * @param reason why it was skipped or aborted, where it was
 * @param failure why it failed, where it did
 * @since 0.2.0
 */
public record TestEnded(
        long at,
        int id,
        Outcome outcome,
        @Nullable String reason,
        @Nullable Failure failure) implements Event {}
