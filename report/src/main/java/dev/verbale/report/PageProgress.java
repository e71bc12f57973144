package dev.verbale.report;

import dev.verbale.results.progress.RunProgress;

/**
 * That a page is of a run that is still going. Opened in a browser it looks for the next one, and shows that where it is.
 *
 * @param progress what there is to show
 * @param expected what the run will probably be like
 * @param number of this page among those of the run; a later one has a higher number
 * @since 0.2.0
 */
public record PageProgress(RunProgress progress, RunProgress.Expectation expected, int number) {}
