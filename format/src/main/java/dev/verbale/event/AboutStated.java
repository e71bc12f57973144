package dev.verbale.event;

/**
 * Somebody said, in an annotation or a call, what a test is about. What a later one leaves out stays.
 *
 * @param id of the test
 */
public record AboutStated(long at, int id, About about) implements Event {}
