package dev.verbale.event;

import java.util.Locale;

/** How a test, a step or a container ended. Declared from the calmest to the gravest, see {@link #worse}. */
public enum Outcome {
    PASSED,
    /** Not run, as decided before it started; there is a reason. */
    SKIPPED,
    /** Given up by an assumption that did not hold. */
    ABORTED,
    /** Failed as it was announced to fail. */
    EXPECTED,
    /** Started, and no end was recorded: the process died, or still runs. Of a step it may also be written: it was left without a word. */
    UNFINISHED,
    /** An assertion did not hold. */
    FAILED,
    /** Anything else was thrown. */
    ERRORED;

    private final String word = name().toLowerCase(Locale.ROOT);

    /** The word for it in journals, pages and terminals, such as {@code passed}. */
    public String word() {
        return word;
    }

    /** Whether somebody has to look at it: failed, errored or unfinished. */
    public boolean needsAttention() {
        return this == FAILED || this == ERRORED || this == UNFINISHED;
    }

    /** The graver of this and {@code other}. */
    public Outcome worse(Outcome other) {
        return other.compareTo(this) > 0 ? other : this;
    }

    /**
     * The outcome that journals call {@code word}.
     *
     * @throws IllegalArgumentException where no outcome has that word
     */
    public static Outcome ofWord(String word) {
        for (Outcome outcome : values()) if (outcome.word.equals(word)) return outcome;
        throw new IllegalArgumentException("unknown outcome '" + word + "'");
    }
}
