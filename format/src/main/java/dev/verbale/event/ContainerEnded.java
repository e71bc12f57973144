package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * Something that holds tests ended.
 *
 * @param outcome of the container itself, such as of its set-up, whatever its tests did
 * @param reason why it was skipped, where it was
 * @param failure why its set-up or tear-down failed, where it did
 * @param notRun how many of its tests were never started because of that
 * @since 0.2.0
 */
public record ContainerEnded(
        long at,
        int id,
        Outcome outcome,
        @Nullable String reason,
        @Nullable Failure failure,
        int notRun) implements Event {}
