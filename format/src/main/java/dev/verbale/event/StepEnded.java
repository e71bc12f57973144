package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * A step ended.
 *
 * @param failure why it failed, on the innermost step that saw it; the steps around it carry only the outcome
 */
public record StepEnded(
        long at, int id, Outcome outcome, @Nullable Failure failure) implements Event {}
