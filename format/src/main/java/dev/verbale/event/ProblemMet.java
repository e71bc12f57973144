package dev.verbale.event;

/**
 * Recording itself met a problem; the suite went on.
 *
 * @param text what was tried and what went wrong, in one line
 * @since 0.2.0
 */
public record ProblemMet(long at, String text) implements Event {}
