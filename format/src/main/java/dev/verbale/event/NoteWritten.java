package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * Somebody wrote a line.
 *
 * @param in the step, test or container it belongs to, or 0 for the run
 * @param thread the thread's name where the line belongs to no test, else null
 */
public record NoteWritten(
        long at, int in, String text, @Nullable String thread) implements Event {}
