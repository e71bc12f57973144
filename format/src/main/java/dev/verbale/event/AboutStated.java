package dev.verbale.event;

import dev.verbale.vocabulary.About;

/**
 * Somebody said, in an annotation or a call, what a test is about. What a later one leaves out stays.
 *
 * @param id of the test
 * @since 0.2.0
 */
public record AboutStated(long at, int id, About about) implements Event.OfBegun {}
