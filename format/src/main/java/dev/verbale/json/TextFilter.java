package dev.verbale.json;

/**
 * What every text passes through on its way into a journal. Called by many threads at once, on the recording thread, for
 * each text of each event: it must be quick, and give the same text back where it has nothing to change.
 *
 * @since 0.2.0
 */
@FunctionalInterface
public interface TextFilter {

    /** Lets every text through as it is. */
    TextFilter NONE = text -> text;

    /** {@code text} as it may be written. */
    String filtered(String text);
}
