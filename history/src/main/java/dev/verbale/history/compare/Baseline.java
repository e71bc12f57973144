package dev.verbale.history.compare;

import dev.verbale.history.digest.RunDigest;

/**
 * The run that another one is compared with, and why this one.
 *
 * @param run what is known of it
 * @param why such as {@code the newest complete run of main before it}; empty where somebody named it
 * @since 0.2.0
 */
public record Baseline(RunDigest run, String why) {

    /** Such as {@code 2026-11-29_221500_a07c, the newest complete run of main before it}. */
    public String text() {
        return why.isEmpty() ? run.run() : run.run() + ", " + why;
    }
}
