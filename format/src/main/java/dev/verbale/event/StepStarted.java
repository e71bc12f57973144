package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * A step began.
 *
 * @param in the step, test or container around it, or 0
 * @param thread the thread's name where the step belongs to no test, else null
 * @param argument what stands below it, where something does
 * @since 0.2.0
 */
public record StepStarted(
        long at,
        int id,
        int in,
        StepKind kind,
        String name,
        @Nullable String thread,
        @Nullable StepArgument argument) implements Event {

    /** One with nothing below it. */
    public StepStarted(long at, int id, int in, StepKind kind, String name, @Nullable String thread) {
        this(at, id, in, kind, name, thread, null);
    }
}
