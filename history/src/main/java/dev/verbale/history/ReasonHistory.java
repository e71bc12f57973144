package dev.verbale.history;

/**
 * A reason over many runs.
 *
 * @param id see {@link dev.verbale.results.reason.FailureReason}
 * @param title as the newest run that has it says it
 * @param first the oldest run that has it
 * @param last the newest run that has it
 * @param runs how many have it
 * @param failures how many tests failed for it, over all runs
 * @since 0.2.0
 */
public record ReasonHistory(String id, String title, RunSummary first, RunSummary last, int runs, int failures) {}
