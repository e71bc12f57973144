package dev.verbale.selenium;

import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.AdapterStep;
import dev.verbale.vocabulary.StepKind;
import java.util.HashSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Notices that a test waits: it looks again at what it looked at before, after a pause, and did nothing in between. That is
 * how every wait works, whoever wrote it. For one thread.
 */
final class Waiting {

    /** Code that looks twice for other reasons does so at once. */
    private static final long PAUSE_NANOS = 20_000_000;

    private final Set<String> seen = new HashSet<>();
    private long lastLookNanos;
    private long lastLookAt;
    private @Nullable AdapterStep step;

    /** The test asks about {@code what}; {@code key} tells queries apart. */
    void queryStarts(AdapterRecorder recorder, String key, String what) {
        boolean repeated = !seen.add(key);
        boolean paused = lastLookNanos != 0 && System.nanoTime() - lastLookNanos > PAUSE_NANOS;
        if (step == null && repeated && paused)
            step = recorder.startOverlappingStep(StepKind.BROWSER, "wait for " + what);
        else if (step != null && !repeated && !paused) ends();
    }

    /** The query is over. */
    void queryEnds(AdapterRecorder recorder) {
        lastLookNanos = System.nanoTime();
        lastLookAt = recorder.now();
    }

    /** The test fails now, and this is what it waited for; not longer than until it looked last. */
    boolean fails(Throwable failure) {
        AdapterStep open = taken();
        if (open == null) return false;
        open.at(lastLookAt).failedWithoutEvidence(failure);
        return true;
    }

    boolean isOpen() {
        return step != null;
    }

    /** Something else happens now; the wait was over when it looked last. */
    void ends() {
        AdapterStep open = taken();
        if (open != null) open.at(lastLookAt).passed();
    }

    private @Nullable AdapterStep taken() {
        seen.clear();
        lastLookNanos = 0;
        AdapterStep open = step;
        step = null;
        return open;
    }
}
