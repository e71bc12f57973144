package dev.verbale.vocabulary;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How a test, a step or a container ended. The known ones are ordered from the calmest to the gravest, see {@link #worse}.
 * A journal of a later version may have others: they keep their word, and somebody has to look at them.
 *
 * @since 0.2.0
 */
public final class Outcome implements Comparable<Outcome> {

    public static final Outcome PASSED = new Outcome("passed", 0);
    /** Not run, as decided before it started; there is a reason. */
    public static final Outcome SKIPPED = new Outcome("skipped", 1);
    /** Given up by an assumption that did not hold. */
    public static final Outcome ABORTED = new Outcome("aborted", 2);
    /** Failed, for a reason that its author knows and named. */
    public static final Outcome EXPECTED_FAILURE = new Outcome("expected-failure", 3);
    /**
     * Started, and no end was recorded: the process died, or still runs. Of a step it may also be written: its end came
     * without an outcome.
     */
    public static final Outcome UNFINISHED = new Outcome("unfinished", 4);
    /** An assertion did not hold. */
    public static final Outcome FAILED = new Outcome("failed", 6);
    /** Anything else was thrown. */
    public static final Outcome ERRORED = new Outcome("errored", 7);

    private static final int UNKNOWN = 5;

    private static final List<Outcome> KNOWN =
            List.of(PASSED, SKIPPED, ABORTED, EXPECTED_FAILURE, UNFINISHED, FAILED, ERRORED);

    private final String word;
    private final int gravity;

    private Outcome(String word, int gravity) {
        this.word = word;
        this.gravity = gravity;
    }

    /** All that this version knows, the calmest first. */
    public static List<Outcome> known() {
        return KNOWN;
    }

    /** The outcome that journals call {@code word}: one of those above, or one that this version does not know. */
    public static Outcome ofWord(String word) {
        for (Outcome outcome : KNOWN) if (outcome.word.equals(word)) return outcome;
        return new Outcome(word, UNKNOWN);
    }

    /** The word for it in journals, such as {@code expected-failure}. */
    public String word() {
        return word;
    }

    /** The words for it in sentences, such as {@code expected failure}. */
    public String text() {
        return word.replace('-', ' ');
    }

    /** Whether this version knows what it means. */
    public boolean isKnown() {
        return gravity != UNKNOWN;
    }

    /** Whether somebody has to look at it: failed, errored or unfinished, or of a later version. */
    public boolean needsAttention() {
        return gravity >= UNFINISHED.gravity;
    }

    /** The graver of this and {@code other}. */
    public Outcome worse(Outcome other) {
        return other.gravity > gravity ? other : this;
    }

    /** From the calmest to the gravest; unknown ones by their words. */
    @Override
    public int compareTo(Outcome other) {
        return gravity == other.gravity ? word.compareTo(other.word) : Integer.compare(gravity, other.gravity);
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Outcome outcome && outcome.word.equals(word);
    }

    @Override
    public int hashCode() {
        return word.hashCode();
    }

    @Override
    public String toString() {
        return word;
    }
}
