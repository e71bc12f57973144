package dev.verbale.viewer;

import dev.verbale.history.RunSummary;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Run;
import dev.verbale.results.RunTags;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What the list says of a run.
 *
 * @param problems what went wrong in recording or reading it
 * @param tags by which it is found
 * @param marks of slices of its time that are alike, the outcome of a test that began in each that most asks for somebody's look; null
 *     where none began
 */
record RunLine(RunSummary summary, int flaky, int problems, List<String> tags, List<@Nullable Outcome> marks) {

    private static final int SLICES = 60;

    static RunLine of(Run run) {
        RunSummary summary = RunSummary.of(RunDigest.of(run, List.of()));
        return new RunLine(summary, run.flaky().size(), run.problems().size(), RunTags.of(run.facts()), marks(run));
    }

    private static List<@Nullable Outcome> marks(Run run) {
        List<@Nullable Outcome> marks = new ArrayList<>(Collections.nCopies(SLICES, null));
        long whole = Math.max(1, run.duration().toNanos());
        for (TestResult test : run.tests()) {
            if (test.superseded()) continue;
            long at = Duration.between(run.started(), test.course().started()).toNanos();
            int slice = (int) Math.max(0, Math.min(SLICES - 1, at * SLICES / whole));
            Outcome there = marks.get(slice);
            if (there == null || !there.needsAttention() && test.outcome().needsAttention())
                marks.set(slice, test.outcome());
        }
        return marks;
    }
}
