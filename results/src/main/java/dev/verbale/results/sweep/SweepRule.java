package dev.verbale.results.sweep;

import java.time.Duration;
import org.jspecify.annotations.Nullable;

/**
 * Which runs are too many. A run goes where any of these says so; what is null says nothing.
 *
 * @param keepRuns how many of the newest stay
 * @param keepFor how old a run may be
 * @param maxBytes how large all that stay may be together
 * @param alsoFailing whether runs go in which a test needs attention; otherwise they stay, whatever else is said
 * @since 0.2.0
 */
public record SweepRule(
        @Nullable Integer keepRuns,
        @Nullable Duration keepFor,
        @Nullable Long maxBytes,
        boolean alsoFailing) {

    public SweepRule {
        if (keepRuns != null && keepRuns < 0)
            throw new IllegalArgumentException("keepRuns is " + keepRuns + ": write 0 or more");
    }
}
