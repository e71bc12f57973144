package dev.verbale.results.element;

/**
 * An element of a page that may be the one that a test looked for.
 *
 * @param selector leads to it, as CSS, such as {@code button#borrow-now}
 * @param text what is read on it, cut where it is long; may be empty
 * @param why in a few words, such as {@code is clicked too, and says "Borrow"}
 * @since 0.2.0
 */
public record NearElement(String selector, String text, String why) {}
