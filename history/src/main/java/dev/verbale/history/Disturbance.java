package dev.verbale.history;

import org.jspecify.annotations.Nullable;

/**
 * That many tests began to fail in one run, or needed another attempt: an outage, a slow machine, one bug that many tests meet. It says
 * nothing of any of these tests alone.
 *
 * @param run in which it began
 * @param tests how many it hit
 * @param reason the id of what they failed for; null where they failed for several
 * @since 0.2.0
 */
public record Disturbance(
        RunSummary run, int tests, @Nullable String reason) {}
