package dev.verbale.history.compare;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.RunSummary;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Finds the run that another one is compared with.
 *
 * @param root the folder that holds runs
 * @param folder where runs are remembered
 * @param history what is remembered there
 * @since 0.2.0
 */
public record BaselineFinder(Path root, HistoryFolder folder, History history) {

    private static final String LAST_GOOD = "last-good";
    private static final String PREVIOUS = "previous";
    private static final String BRANCH = "branch:";

    /**
     * What {@code run} is compared with.
     *
     * @param wanted a run's folder or name; {@code last-good}, the newest earlier run of the same branch in which no test needed
     *     attention; {@code branch:NAME}, that of another branch; {@code previous}, the run before; null for the last good one, or
     *     else the previous one
     * @return empty only where nothing was wanted and there is none
     * @throws ResultsFormatException where there is no such run
     * @throws IOException where a run cannot be read
     */
    public Optional<RunDigest> find(@Nullable String wanted, Run run) throws IOException {
        String branch = run.facts().getOrDefault("branch", "");
        if (wanted == null) {
            Optional<RunDigest> good = lastGood(run, branch);
            return good.isPresent() ? good : previous(run);
        }
        if (wanted.equals(LAST_GOOD))
            return found(lastGood(run, branch), "no good run of this branch is remembered in " + folder.path());
        if (wanted.startsWith(BRANCH)) {
            String other = wanted.substring(BRANCH.length());
            return found(
                    lastGood(run, other), "no good run of branch '" + other + "' is remembered in " + folder.path());
        }
        if (wanted.equals(PREVIOUS)) return found(previous(run), "there is no run before " + run.name());
        Optional<RunDigest> remembered = folder.digest(wanted, problem -> {});
        return remembered.isPresent() ? remembered : Optional.of(RunDigest.of(RunReader.read(named(wanted))));
    }

    private Path named(String wanted) throws ResultsFormatException {
        try {
            Path inRoot = root.resolve(wanted);
            return Files.isDirectory(inRoot) ? inRoot : Path.of(wanted);
        } catch (InvalidPathException odd) {
            throw missing("'" + wanted + "' is no run's name");
        }
    }

    private Optional<RunDigest> found(Optional<RunDigest> one, String reason) throws ResultsFormatException {
        if (one.isEmpty()) throw missing(reason);
        return one;
    }

    private ResultsFormatException missing(String what) {
        return new ResultsFormatException(
                root,
                what,
                "Runs are remembered by the Maven plugin, and by verbale history add",
                "Name a run's folder, or another baseline");
    }

    private Optional<RunDigest> lastGood(Run run, String branch) {
        return history.lastGood(branch.isEmpty() ? null : branch, run.started())
                .flatMap(good -> folder.digest(good.name(), good.started(), problem -> {}));
    }

    /** The one before it, in its own folder or in the history. */
    private Optional<RunDigest> previous(Run run) throws IOException {
        String before = null;
        for (RunFolder one : new ResultsRoot(root).runs())
            if (one.name().compareTo(run.name()) < 0) before = one.name();
        List<RunSummary> remembered = history.runs().stream()
                .filter(one ->
                        one.started().isBefore(run.started()) && !one.name().equals(run.name()))
                .toList();
        RunSummary last = remembered.isEmpty() ? null : remembered.get(remembered.size() - 1);
        if (before != null && (last == null || last.name().compareTo(before) <= 0))
            return Optional.of(RunDigest.of(RunReader.read(root.resolve(before))));
        return last == null ? Optional.empty() : folder.digest(last.name(), last.started(), problem -> {});
    }
}
