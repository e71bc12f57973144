package dev.verbale.history;

import dev.verbale.history.digest.RunDigest;
import java.time.Duration;
import java.time.Instant;

/**
 * A run that is remembered.
 *
 * @param tests how many it had
 * @param needingAttention how many of them did not pass as they should
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
        boolean isComplete,
        boolean isMadeUp) {

    /** Of a run that is remembered. */
    static RunSummary of(RunDigest digest) {
        return new RunSummary(
                digest.run(),
                digest.started(),
                digest.duration(),
                digest.branch(),
                digest.commit(),
                digest.tests().size(),
                digest.needingAttention(),
                digest.isComplete(),
                digest.isMadeUp());
    }
}
