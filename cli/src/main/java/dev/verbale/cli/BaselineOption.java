package dev.verbale.cli;

import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.compare.Baseline;
import dev.verbale.history.compare.BaselineFinder;
import dev.verbale.results.Run;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** Which run another one is compared with. */
final class BaselineOption {

    @Option(
            names = "--baseline",
            paramLabel = "RUN",
            description = {
                "What to compare with: a run, last-good, branch:main",
                "A run's folder or name; branch:NAME, the newest complete run of that branch; last-good, the newest of the same branch in which nothing needed attention; previous, the run before, whatever it was; a day (friday, 2026-11-27), a moment, a tag or commit of git's. Left out: the newest complete run of the branch that this one is to be merged into, or else of the same branch, or else of the one that it left."
            })
    private @Nullable String baseline;

    /** As it was named; null where nobody named one. */
    @Nullable
    String named() {
        return baseline;
    }

    /**
     * What {@code run} is compared with.
     *
     * @param root the folder that holds its kin
     * @return empty only where nobody named one and there is none
     */
    Optional<Baseline> find(Run run, Path root, HistoryFolder folder, History history) throws IOException {
        return new BaselineFinder(root, folder, history).find(baseline, run);
    }
}
