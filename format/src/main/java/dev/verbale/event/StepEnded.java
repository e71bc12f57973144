package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * A step ended.
 *
 * @param reason why it was skipped, where it was
 * @param failure why it failed, on the innermost step that saw it; the steps around it carry only the outcome
 * @since 0.2.0
 */
public record StepEnded(
        long at,
        int id,
        Outcome outcome,
        @Nullable String reason,
        @Nullable Failure failure) implements Event {}
