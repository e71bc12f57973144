package dev.verbale.vocabulary;

import org.jspecify.annotations.Nullable;

/**
 * What a step is for. A journal of a later version may have kinds that are not among these.
 *
 * @param word the word for it in journals
 * @since 0.2.0
 */
public record StepKind(String word) {
    /** Part of what the test does. */
    public static final StepKind ACTION = new StepKind("action");
    /** Prepares a test or a container, such as a {@code @BeforeEach} method. */
    public static final StepKind SET_UP = new StepKind("set-up");
    /** Cleans up after a test or a container. */
    public static final StepKind TEAR_DOWN = new StepKind("tear-down");
    /** Something that was done to a browser; the adapter writes it, and what is between asterisks is a name. */
    public static final StepKind BROWSER = new StepKind("browser");

    // By hand: to link what a record has of itself takes a JVM 25 ms, in which no test begins.

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof StepKind kind && kind.word.equals(word);
    }

    @Override
    public int hashCode() {
        return word.hashCode();
    }

    /** Whether this version knows what it means. */
    public boolean isKnown() {
        return equals(ACTION) || equals(SET_UP) || equals(TEAR_DOWN) || equals(BROWSER);
    }
}
