package dev.verbale.cli;

import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.compare.BaselineFinder;
import dev.verbale.history.digest.RunDigest;
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
                "What to compare with: a run's folder or name;",
                "last-good, the newest earlier run of the same branch",
                "in which no test needed attention; branch:NAME, that of",
                "another branch; previous, the run before. Left out:",
                "last-good where there is one, or else previous."
            })
    private @Nullable String baseline;

    /**
     * What {@code run} is compared with.
     *
     * @param root the folder that holds its kin
     * @return empty only where nobody named one and there is none
     */
    Optional<RunDigest> find(Run run, Path root, HistoryFolder folder, History history) throws IOException {
        return new BaselineFinder(root, folder, history).find(baseline, run);
    }
}
