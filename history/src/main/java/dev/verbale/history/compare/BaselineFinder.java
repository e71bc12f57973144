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
import java.time.Instant;
import java.time.ZoneId;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Finds the run that another one is compared with. Where nobody names one, that is the newest earlier run that <i>can</i> be compared with
 * it: nothing of that one is missing, it was meant to run what this one runs, and it ran more than half of what this one ran. It is one of
 * the branch that this one is to be merged into, where that is known; or else of the same branch; or else of the branch that this one's
 * left, by its commits. A run of any other branch is compared with only where somebody says so.
 *
 * <p>Not thread-safe. A run's folder is read once, however often it is asked for: runs that are over change no more.
 *
 * @since 0.2.0
 */
public final class BaselineFinder {

    private static final String LAST_GOOD = "last-good";
    private static final String PREVIOUS = "previous";
    private static final String BRANCH = "branch:";

    private final Path root;
    private final HistoryFolder folder;
    private final History history;
    private final Map<Path, RunDigest> read = new HashMap<>();

    /**
     * @param root the folder that holds runs
     * @param folder where runs are remembered
     * @param history what is remembered there
     */
    public BaselineFinder(Path root, HistoryFolder folder, History history) {
        this.root = root;
        this.folder = folder;
        this.history = history;
    }

    /** What is remembered. */
    public History history() {
        return history;
    }

    /**
     * What {@code run} is compared with.
     *
     * @param wanted a run's folder or name; {@code last-good}, the newest run of the same branch that can be compared with it and in
     *     which nothing needed attention; {@code branch:NAME}, the newest of that branch that can; {@code previous}, the run before,
     *     whatever it was; a day ({@code friday}, {@code yesterday}, {@code 2026-11-27}) or a moment, the newest up to then; a tag, branch or
     *     commit of git's; null for the one that is found as said above
     * @return empty only where nothing was wanted and there is none
     * @throws ResultsFormatException where there is no such run, or it is {@code run} itself
     * @throws IOException where a run cannot be read
     */
    public Optional<Baseline> find(@Nullable String wanted, Run run) throws IOException {
        var candidates = new BaselineCandidates(root, folder, history, read, run);
        String branch = run.facts().getOrDefault("branch", "");
        if (wanted == null) return usual(candidates, run, branch);
        if (wanted.equals(LAST_GOOD))
            return found(
                    candidates
                            .newest(of(branch).and(one -> one.needingAttention() == 0))
                            .map(good -> new Baseline(good, "the last good run" + ofBranch(branch))),
                    "no good run of this branch is known that can be compared with " + run.name());
        if (wanted.startsWith(BRANCH)) {
            String other = wanted.substring(BRANCH.length());
            return found(
                    newest(candidates, other),
                    "no complete run of branch '" + other + "' is known that can be compared with " + run.name());
        }
        if (wanted.equals(PREVIOUS)) return found(previous(run), "there is no run before " + run.name());
        Optional<RunDigest> named = remembered(wanted, run);
        if (named.isPresent()) return named.map(one -> new Baseline(one, ""));
        Optional<Instant> until = Moments.until(wanted, run.started(), ZoneId.systemDefault());
        if (until.isPresent()) return upTo(wanted, until.get(), candidates, run, branch);
        Optional<Baseline> ofRevision = ofRevision(wanted, candidates);
        return ofRevision.isPresent() ? ofRevision : Optional.of(new Baseline(inFolder(wanted, run), ""));
    }

    /** The newest that began before {@code until}, of the branch that is usually compared with. */
    private Optional<Baseline> upTo(String wanted, Instant until, BaselineCandidates candidates, Run run, String branch)
            throws IOException {
        String target = run.facts().getOrDefault("target branch", branch);
        Optional<RunDigest> there =
                candidates.newest(of(target).and(one -> one.started().isBefore(until)));
        return found(
                there.map(one -> new Baseline(one, "the newest complete run" + ofBranch(target) + " up to " + wanted)),
                "no complete run" + ofBranch(target) + " up to " + wanted + " is known that can be compared with "
                        + run.name());
    }

    /** The newest of a tag, a branch or a commit of git's, or else of what that came from. */
    private Optional<Baseline> ofRevision(String wanted, BaselineCandidates candidates) {
        String commit = Ancestors.commit(wanted, root);
        if (commit.isEmpty()) return Optional.empty();
        Optional<RunDigest> its = candidates.newest(one -> one.commit().equals(commit));
        if (its.isPresent()) return its.map(one -> new Baseline(one, "the newest complete run of " + wanted));
        Set<String> ancestors = Ancestors.of(commit, root);
        return candidates
                .newest(one -> ancestors.contains(one.commit()))
                .map(one -> new Baseline(one, "the newest complete run of what " + wanted + " came from"));
    }

    private Optional<Baseline> usual(BaselineCandidates candidates, Run run, String branch) {
        String target = run.facts().getOrDefault("target branch", "");
        if (!target.isEmpty() && !target.equals(branch)) {
            Optional<Baseline> there = newest(candidates, target);
            if (there.isPresent()) return there;
        }
        Optional<RunDigest> own = candidates.newest(of(branch));
        if (own.isPresent())
            return own.map(before -> new Baseline(before, "the newest complete run" + ofBranch(branch) + " before it"));
        String commit = run.facts().getOrDefault("commit", "");
        if (branch.isEmpty() || commit.isEmpty()) return Optional.empty();
        Set<String> ancestors = Ancestors.of(commit, root);
        return candidates
                .newest(one -> ancestors.contains(one.commit()))
                .map(left -> new Baseline(
                        left, "the newest complete run" + ofBranch(left.branch()) + ", which " + branch + " left"));
    }

    private static Optional<Baseline> newest(BaselineCandidates candidates, String branch) {
        return candidates
                .newest(of(branch))
                .map(run -> new Baseline(run, "the newest complete run" + ofBranch(branch)));
    }

    private static Predicate<RunSummary> of(String branch) {
        return one -> one.branch().equals(branch);
    }

    private static String ofBranch(String branch) {
        return branch.isEmpty() ? "" : " of " + branch;
    }

    private Optional<RunDigest> remembered(String wanted, Run run) throws IOException {
        Optional<RunDigest> named = folder.digest(wanted, problem -> {});
        return named.isEmpty() ? named : Optional.of(other(named.get(), wanted, run));
    }

    private RunDigest inFolder(String wanted, Run run) throws IOException {
        Path path = path(wanted);
        if (!Files.exists(path))
            throw missing("there is no run '" + wanted + "', and it is no day, no moment and no tag of git's either");
        return other(RunDigest.of(RunReader.read(path)), wanted, run);
    }

    private RunDigest other(RunDigest named, String wanted, Run run) throws ResultsFormatException {
        if (named.run().equals(run.name()) && named.started().equals(run.started()))
            throw missing("'" + wanted + "' is the run itself, which went as it did");
        return named;
    }

    private Path path(String wanted) throws ResultsFormatException {
        try {
            Path inRoot = root.resolve(wanted);
            return Files.isDirectory(inRoot) ? inRoot : Path.of(wanted);
        } catch (InvalidPathException odd) {
            throw missing("'" + wanted + "' is no run's name");
        }
    }

    private Optional<Baseline> found(Optional<Baseline> one, String reason) throws ResultsFormatException {
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

    /** The one before it, in its own folder or in the history. */
    private Optional<Baseline> previous(Run run) throws IOException {
        String before = null;
        for (RunFolder one : new ResultsRoot(root).runs())
            if (one.name().compareTo(run.name()) < 0) before = one.name();
        List<RunSummary> remembered = history.runs().stream()
                .filter(one ->
                        one.started().isBefore(run.started()) && !one.name().equals(run.name()))
                .sorted(Comparator.comparing(RunSummary::started))
                .toList();
        RunSummary last = remembered.isEmpty() ? null : remembered.get(remembered.size() - 1);
        if (before != null && (last == null || last.name().compareTo(before) <= 0))
            return Optional.of(new Baseline(RunDigest.of(RunReader.read(root.resolve(before))), "the run before it"));
        return last == null
                ? Optional.empty()
                : folder.digest(last.name(), last.started(), problem -> {})
                        .map(digest -> new Baseline(digest, "the run before it"));
    }
}
