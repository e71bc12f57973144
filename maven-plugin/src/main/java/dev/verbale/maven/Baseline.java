package dev.verbale.maven;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import java.io.IOException;
import java.util.List;
import org.apache.maven.execution.MavenSession;
import org.jspecify.annotations.Nullable;

/** The run that a page compares with. */
final class Baseline {

    private static final String PREVIOUS = "previous";

    private Baseline() {}

    /**
     * The run that goes by {@code name} among those beside {@code run}; null where nobody asked for one, and where there is none before.
     *
     * @throws IllegalArgumentException where no run has that name
     */
    static @Nullable RunFolder of(MavenSession session, RunFolder run, @Nullable String name) throws IOException {
        if (name == null || name.isBlank()) return null;
        List<RunFolder> runs = new ResultsRoot(BuildRun.root(session)).runs();
        if (name.equals(PREVIOUS))
            return runs.stream()
                    .filter(one -> one.name().compareTo(run.name()) < 0)
                    .reduce((earlier, later) -> later)
                    .orElse(null);
        return runs.stream()
                .filter(one -> one.name().equals(name))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("There is no run " + name + " in "
                        + BuildRun.root(session) + " to compare with. Write the name of one, or previous."));
    }
}
