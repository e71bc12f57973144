package dev.verbale.history.compare;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.RunSummary;
import dev.verbale.history.digest.MovedTests;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.results.Run;
import dev.verbale.results.RunPart;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.TestResult;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** The earlier runs that a run may be compared with, those that are remembered and those whose folders lie beside its own. */
final class BaselineCandidates {

    /** Reading a run of a hundred thousand tests takes seconds: who keeps folders and remembers none has an answer all the same. */
    private static final int MAX_READ = 10;

    private final HistoryFolder remembered;
    private final String part;
    private final Set<String> keys;
    private final List<Candidate> candidates = new ArrayList<>();
    private final Map<Path, RunDigest> read;
    private int reads;

    /** One is remembered, or lies in a folder. */
    private record Candidate(
            String name,
            Instant started,
            @Nullable RunSummary summary,
            @Nullable RunFolder folder) {}

    /** @param read what was read of folders before, and is read here */
    BaselineCandidates(Path root, HistoryFolder remembered, History history, Map<Path, RunDigest> read, Run run)
            throws IOException {
        this.remembered = remembered;
        this.read = read;
        this.part = RunPart.of(run.facts());
        this.keys = run.tests().stream().map(TestResult::key).collect(Collectors.toSet());
        Set<String> names = new HashSet<>();
        for (RunSummary one : history.runs()) {
            names.add(one.name());
            if (one.tests() > 0 && one.isComplete() && one.started().isBefore(run.started()))
                candidates.add(new Candidate(one.name(), one.started(), one, null));
        }
        for (RunFolder one : new ResultsRoot(root).runs())
            if (!names.contains(one.name()) && !one.name().equals(run.name())) addFolder(one, run);
        candidates.sort(Comparator.comparing(Candidate::started)
                .thenComparing(Candidate::name)
                .reversed());
    }

    private void addFolder(RunFolder folder, Run run) {
        try {
            Instant started = RunDescription.read(folder.runFile()).started();
            if (started.isBefore(run.started())) candidates.add(new Candidate(folder.name(), started, null, folder));
        } catch (IOException unreadable) {
            // no run to compare with
        }
    }

    /** The newest that can be compared with the run. */
    Optional<RunDigest> newest(Predicate<RunSummary> wanted) {
        for (Candidate candidate : candidates) {
            RunSummary summary = candidate.summary();
            if (summary != null && !wanted.test(summary)) continue;
            Optional<RunDigest> digest = digest(candidate);
            if (digest.isPresent() && wanted.test(RunSummary.of(digest.get())) && canBeCompared(digest.get()))
                return digest;
        }
        return Optional.empty();
    }

    private Optional<RunDigest> digest(Candidate candidate) {
        if (candidate.folder() == null) return remembered.digest(candidate.name(), candidate.started(), problem -> {});
        Path path = candidate.folder().path();
        RunDigest known = read.get(path);
        if (known == null && ++reads > MAX_READ) return Optional.empty();
        try {
            if (known == null) known = RunDigest.of(RunReader.read(path, TestKeeper.FAILURES));
        } catch (IOException unreadable) {
            return Optional.empty(); // no run to compare with; another may be
        }
        if (known.isComplete()) read.put(path, known); // any other may still be recorded
        return Optional.of(known);
    }

    /** Whether it is whole, was meant to run what the run was meant to run, and did. */
    private boolean canBeCompared(RunDigest digest) {
        if (!digest.isComplete() || digest.tests().isEmpty()) return false;
        if (!digest.part().isEmpty() && !digest.part().equals(part)) return false;
        Set<String> there = digest.tests().stream().map(TestDigest::key).collect(Collectors.toSet());
        var moved = new MovedTests(keys, there);
        int common = 0;
        for (String key : keys) {
            String earlier = moved.earlier(key);
            if (there.contains(earlier == null ? key : earlier)) common++;
        }
        return 2 * common > keys.size() || keys.isEmpty();
    }
}
