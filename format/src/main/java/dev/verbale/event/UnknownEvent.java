package dev.verbale.event;

/**
 * An event of a later version, kept as it is. Nobody writes it.
 *
 * @param word what the journal calls its kind
 * @param id its own, or 0 where it has none; what belongs to it names it
 * @param in the step, test or container it belongs to, or 0
 * @param json the line, as it stands in the journal
 * @since 0.2.0
 */
public record UnknownEvent(long at, String word, int id, int in, String json) implements Event.InScope {}
