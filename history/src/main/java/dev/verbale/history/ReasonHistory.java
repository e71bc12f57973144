package dev.verbale.history;

import org.jspecify.annotations.Nullable;

/**
 * A reason over many runs.
 *
 * @param id see {@link dev.verbale.results.reason.FailureReason}
 * @param title as the newest run that has it says it
 * @param first the oldest run that has it
 * @param last the newest run that has it
 * @param runs how many have it
 * @param failures how many tests failed for it, over all runs
 * @param since the first run of its present stretch, in which each run up to the newest has it; null where the newest does not
 * @param stretch how many runs that are; 0 where the newest does not have it
 * @since 0.2.0
 */
public record ReasonHistory(
        String id,
        String title,
        RunSummary first,
        RunSummary last,
        int runs,
        int failures,
        @Nullable RunSummary since,
        int stretch) {}
