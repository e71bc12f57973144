package dev.verbale.event;

/**
 * A value that a test works with was named.
 *
 * @param in the step, test or container it was named in, or 0 for the run
 * @since 0.2.0
 */
public record DataNamed(long at, int in, String name, String value) implements Event.InScope {}
