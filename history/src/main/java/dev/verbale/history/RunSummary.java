package dev.verbale.history;

import dev.verbale.history.digest.RunDigest;
import java.time.Duration;
import java.time.Instant;

/**
 * A run that is remembered.
 *
 * @param tests how many it had
 * @param needingAttention how many of them, and of their classes outside them, somebody has to look at
 * @param part which part of its suite it was meant to run; empty for the whole
 * @param isComplete see {@link RunDigest#isComplete()}
 * @param isMadeUp see {@link RunDigest#isMadeUp()}
 * @since 0.2.0
 */
public record RunSummary(
        String name,
        Instant started,
        Duration duration,
        String branch,
        String commit,
        int tests,
        int needingAttention,
        String part,
        boolean isComplete,
        boolean isMadeUp) {

    /** How it went, in a few words: {@code all good} where it is complete, has tests, and nobody has to look at any of them. */
    public String words() {
        String how = needingAttention > 0
                ? needingAttention + (needingAttention == 1 ? " needs attention" : " need attention")
                : tests == 0 ? "no test was recorded" : isComplete ? "all good" : "nothing needs attention so far";
        return isComplete ? how : how + ", incomplete";
    }

    /** Whether it is complete, has tests, and nobody has to look at any of them. */
    public boolean isGood() {
        return isComplete && tests > 0 && needingAttention == 0;
    }

    /** Of what is remembered of a run. */
    public static RunSummary of(RunDigest digest) {
        return new RunSummary(
                digest.run(),
                digest.started(),
                digest.duration(),
                digest.branch(),
                digest.commit(),
                digest.tests().size(),
                digest.needingAttention(),
                digest.part(),
                digest.isComplete(),
                digest.isMadeUp());
    }
}
