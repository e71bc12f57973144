package dev.verbale.results.sweep;

import dev.verbale.folder.FolderTree;
import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import dev.verbale.folder.RunName;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.Worker;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/**
 * Deletes runs by a rule. It takes only folders that are runs and have a run's own name: what somebody named stays. Kept are also runs
 * that are still recorded, the newest good run of each branch and, where the rule does not say otherwise, failing ones.
 *
 * <p>A run is moved aside before it is deleted, so that nobody meets half of one; what a killed sweep left is finished by the next.
 *
 * @since 0.2.0
 */
public final class RunSweeper {

    private static final String ASIDE = ".swept-";

    /** A journal that was not closed, and written to since then, may be one of a JVM that runs. */
    private static final Duration STILL = Duration.ofHours(1);

    private final Path root;
    private final SweepRule rule;
    private final Instant now;

    /**
     * @param root the folder that holds runs
     * @param now by which runs are old
     */
    public RunSweeper(Path root, SweepRule rule, Instant now) {
        this.root = root;
        this.rule = rule;
        this.now = now;
    }

    /**
     * A run and what is done with it.
     *
     * @param goes whether it is deleted
     * @param bytes how large it is
     * @param why it goes, or why it stays although the rule would have it go; empty where the rule lets it stay
     */
    public record Judged(String run, boolean goes, long bytes, String why) {}

    /**
     * What would be done, the newest run first. Nothing is changed.
     *
     * @throws IOException where the folder cannot be listed
     */
    public List<Judged> plan() throws IOException {
        List<RunFolder> runs = new ArrayList<>(new ResultsRoot(root)
                .runs().stream()
                        .filter(run -> RunName.isOwn(run.name()))
                        .filter(run -> Files.isDirectory(run.path(), LinkOption.NOFOLLOW_LINKS))
                        .toList());
        java.util.Collections.reverse(runs);
        List<Judged> plan = new ArrayList<>();
        Set<String> branchesWithGood = new HashSet<>();
        long kept = 0;
        for (int i = 0; i < runs.size(); i++) {
            long bytes = size(runs.get(i).path());
            Judged judged = judge(runs.get(i), i, bytes, kept, branchesWithGood);
            if (!judged.goes()) kept += bytes;
            plan.add(judged);
        }
        return plan;
    }

    private Judged judge(RunFolder folder, int newer, long bytes, long kept, Set<String> branchesWithGood) {
        Run run;
        try {
            run = RunReader.read(folder.path(), TestKeeper.ENDS);
        } catch (IOException | RuntimeException unreadable) {
            return new Judged(folder.name(), false, bytes, "it cannot be read: " + unreadable.getMessage());
        }
        boolean isGood = run.counts().all() > 0 && run.counts().needingAttention() == 0;
        boolean isLastGood = isGood && branchesWithGood.add(run.facts().getOrDefault("branch", ""));
        String why = why(run, newer, bytes, kept);
        if (why.isEmpty()) return new Judged(folder.name(), false, bytes, "");
        if (isRecorded(folder, run)) return new Judged(folder.name(), false, bytes, "it is still recorded");
        if (isLastGood) return new Judged(folder.name(), false, bytes, "it is the last good one of its branch");
        if (!isGood && run.counts().all() > 0 && !rule.alsoFailing())
            return new Judged(folder.name(), false, bytes, "tests of it need attention");
        return new Judged(folder.name(), true, bytes, why);
    }

    private String why(Run run, int newer, long bytes, long kept) {
        if (rule.keepRuns() != null && newer >= rule.keepRuns()) return "there are " + newer + " newer ones";
        if (rule.keepFor() != null && run.started().plus(run.duration()).isBefore(now.minus(rule.keepFor())))
            return "it is " + Duration.between(run.started(), now).toDays() + " days old";
        if (rule.maxBytes() != null && kept + bytes > rule.maxBytes()) return "the newer ones are large enough";
        return "";
    }

    private boolean isRecorded(RunFolder folder, Run run) {
        if (isLocked(folder.path().resolve("writers.lock"))) return true;
        if (run.workers().stream().allMatch(Worker::ended)) return false;
        try {
            for (Path journal : folder.journalFiles())
                if (Files.getLastModifiedTime(journal).toInstant().isAfter(now.minus(STILL))) return true;
            return false;
        } catch (IOException unknown) {
            return true;
        }
    }

    /** Whether a JVM of the run holds it; see {@code docs/format.md}. */
    private static boolean isLocked(Path file) {
        if (!Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)) return false;
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.WRITE);
                FileLock lock = channel.tryLock()) {
            return lock == null;
        } catch (OverlappingFileLockException ours) {
            return true;
        } catch (IOException unknown) {
            return true;
        }
    }

    /**
     * Does as {@link #plan} says, the oldest run first.
     *
     * @return the plan that was carried out
     * @throws IOException where something cannot be deleted; the runs that were not reached are as they were
     */
    public List<Judged> sweep() throws IOException {
        finishEarlier();
        List<Judged> plan = plan();
        for (int i = plan.size() - 1; i >= 0; i--)
            if (plan.get(i).goes()) delete(root.resolve(plan.get(i).run()));
        return plan;
    }

    private void finishEarlier() throws IOException {
        if (!Files.isDirectory(root)) return;
        List<Path> left;
        try (Stream<Path> all = Files.list(root)) {
            left = all.filter(one -> {
                        String name = String.valueOf(one.getFileName());
                        return name.startsWith(ASIDE) && RunName.isOwn(name.substring(ASIDE.length()));
                    })
                    .toList();
        }
        for (Path one : left) FolderTree.delete(one);
    }

    private void delete(Path run) throws IOException {
        Path aside = run.resolveSibling(ASIDE + run.getFileName());
        Files.move(run, aside);
        Files.deleteIfExists(new RunFolder(aside).runFile()); // from now on it is no run
        FolderTree.delete(aside);
    }

    private static long size(Path folder) throws IOException {
        long[] bytes = {0};
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) {
                bytes[0] += attributes.size();
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFileFailed(Path file, IOException gone) {
                return FileVisitResult.CONTINUE; // while it was looked at
            }
        });
        return bytes[0];
    }
}
