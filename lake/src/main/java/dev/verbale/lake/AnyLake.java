package dev.verbale.lake;

import dev.verbale.history.HistoryFolder;
import dev.verbale.history.RunSummary;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Problem;
import java.io.IOException;
import java.util.Iterator;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * A lake, wherever it lies: {@link Lake} in a folder, {@link SharedLake} in a storage. Safe for several threads and processes.
 *
 * @since 0.2.0
 */
public sealed interface AnyLake permits Lake, SharedLake {

    /** The names of its projects, in order; none where there is no lake. */
    List<String> projects() throws IOException;

    /**
     * Which of these runs are worth adding: those that are not in it yet, or of which more is known by now.
     *
     * @param project whose runs they are
     */
    List<RunSummary> lacking(String project, List<RunSummary> runs) throws IOException;

    /**
     * Adds runs of a project, read one after the other. One that is there already is passed over, unless more is known of it by now: then it takes the
     * place of what was there.
     *
     * @param project letters, digits, {@code .}, {@code _} and {@code -}
     * @param runs those of one day behind one another come into one file
     * @throws IllegalArgumentException where the project cannot be called so
     * @throws IOException where that cannot be done; runs before it are in
     */
    Lake.Added add(String project, Iterator<LakeRun> runs) throws IOException;

    /**
     * Adds what a history remembers and the lake has not.
     *
     * @param folder that is read for it
     * @param problems hears of each file that cannot be read: the lake lacks that run
     * @return of all that are remembered, how many came in and how many were there
     * @throws IOException where that cannot be done; runs before it are in
     */
    default Lake.Added addRemembered(String project, HistoryFolder folder, Consumer<Problem> problems)
            throws IOException {
        List<RunSummary> known = folder.read(problems).runs();
        List<RunSummary> lacking = lacking(project, known);
        Lake.Added added = add(
                project,
                lacking.stream()
                        .flatMap(run -> digest(folder, run, problems).stream())
                        .map(LakeRun::of)
                        .iterator());
        return added.and(new Lake.Added(0, known.size() - lacking.size(), 0, 0));
    }

    private static Optional<RunDigest> digest(HistoryFolder folder, RunSummary run, Consumer<Problem> problems) {
        Optional<RunDigest> found = folder.digest(run.name(), run.started(), problems);
        if (found.isEmpty())
            problems.accept(
                    new Problem(run.name(), 0, "its file has another name than it was remembered by, or is gone"));
        return found;
    }

    /**
     * Its tables as they are now.
     *
     * @param project whose runs; null for those of all projects
     * @throws IOException where something of the lake is missing, or not as it has to be
     */
    LakeTables tables(@Nullable String project) throws IOException;
}
