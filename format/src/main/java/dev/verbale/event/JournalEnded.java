package dev.verbale.event;

/**
 * The last line of a journal whose JVM ended in order; late events may still follow it.
 *
 * @param missing how many events could not be written
 */
public record JournalEnded(long at, long missing) implements Event {}
