package dev.verbale.event;

/**
 * A step was given a time to keep to. A step that takes longer is marked, never cut.
 *
 * @param id of the step, which has begun
 * @param micros microseconds; positive
 * @since 0.2.0
 */
public record StepBudgeted(long at, int id, long micros) implements Event.OfBegun {}
