package dev.verbale.history;

import dev.verbale.vocabulary.Outcome;
import org.jspecify.annotations.Nullable;

/**
 * A test in one run.
 *
 * @param attempts 1 or more
 * @param recovered whether it passed after an attempt that had not
 * @param reason the id of the reason why it failed; null where it did not, or nobody knows
 * @since 0.2.0
 */
public record Appearance(
        RunSummary run,
        Outcome outcome,
        int attempts,
        boolean recovered,
        @Nullable String reason) {

    boolean failed() {
        return outcome.needsAttention();
    }

    boolean passed() {
        return outcome.equals(Outcome.PASSED);
    }
}
