package dev.verbale.results.join;

import dev.verbale.folder.RunDescription;
import dev.verbale.folder.RunFolder;
import dev.verbale.folder.ShardName;
import dev.verbale.folder.WholeFile;
import dev.verbale.journal.JournalFormat;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.RunReader;
import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/**
 * Joins runs into one folder: each lies in there whole, under a name of its own, and whoever reads the folder reads them all as one run.
 *
 * <p>It may be done again, with the same runs or more, in any order, and comes to the same. Nothing is overwritten: of a journal that
 * grew since, the longer one stays; any other file that differs is a clash, which is named, and what was there stays. Pages are not
 * taken along, nor links.
 *
 * @since 0.2.0
 */
public final class RunJoiner {

    private final RunFolder output;
    private final List<String> clashes = new ArrayList<>();
    private final TreeSet<String> shards = new TreeSet<>();

    private RunJoiner(RunFolder output) {
        this.output = output;
    }

    /**
     * What came of it.
     *
     * @param folder of the joined run
     * @param shards the names of the runs in there that were joined now
     * @param clashes files below the joined run's folder that are there with another content, and stayed as they were
     */
    public record Joined(RunFolder folder, List<String> shards, List<String> clashes) {
        public Joined {
            shards = List.copyOf(shards);
            clashes = List.copyOf(clashes);
        }
    }

    /**
     * Joins {@code runs} into {@code output}, which is made, empty, or a joined run.
     *
     * @throws ResultsFormatException where one of them is no run, or the output is something else; then nothing was written
     * @throws IOException where a file cannot be read or written; what was joined until then stays, and it may be tried again
     */
    public static Joined join(List<Path> runs, Path output) throws IOException {
        var folder = new RunFolder(output);
        refuseOther(folder);
        List<RunFolder> all = new ArrayList<>();
        for (Path run : runs) {
            RunFolder found = RunReader.find(run);
            if (output.toAbsolutePath()
                    .normalize()
                    .equals(found.path().toAbsolutePath().normalize()))
                throw new ResultsFormatException(
                        output,
                        "a run cannot be joined into itself",
                        "It is both",
                        "Name another folder with --output");
            all.addAll(found.shards());
            if (!found.journalFiles().isEmpty() || found.shards().isEmpty()) all.add(found);
        }
        var joiner = new RunJoiner(folder);
        Files.createDirectories(folder.shardsFolder());
        for (RunFolder one : all) joiner.take(one);
        joiner.describe();
        return new Joined(folder, List.copyOf(joiner.shards), joiner.clashes);
    }

    private static void refuseOther(RunFolder output) throws IOException {
        Path path = output.path();
        if (!Files.exists(path, LinkOption.NOFOLLOW_LINKS)) return;
        if (!Files.isDirectory(path))
            throw new ResultsFormatException(path, "this is a file", "Runs are joined in a folder", "Name another");
        try (var inside = Files.list(path)) {
            boolean isEmpty = inside.findAny().isEmpty();
            boolean isJoined = Files.isDirectory(output.shardsFolder(), LinkOption.NOFOLLOW_LINKS);
            if (!isEmpty && !isJoined)
                throw new ResultsFormatException(
                        path,
                        "this folder holds something else",
                        "It is neither empty nor a joined run",
                        "Name another");
        }
    }

    private void take(RunFolder run) throws IOException {
        String name = ShardName.of(run);
        shards.add(name);
        Path target = output.shardsFolder().resolve(name);
        Path from = run.path().toAbsolutePath().normalize();
        Path page = run.page().toAbsolutePath().normalize();
        Path itsShards = run.shardsFolder().toAbsolutePath().normalize();
        Files.walkFileTree(from, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes attributes) {
                return folder.equals(page) || folder.equals(itsShards)
                        ? FileVisitResult.SKIP_SUBTREE
                        : FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                if (attributes.isRegularFile())
                    copy(file, target.resolve(from.relativize(file).toString()));
                return FileVisitResult.CONTINUE;
            }
        });
    }

    private void copy(Path from, Path to) throws IOException {
        if (Files.exists(to, LinkOption.NOFOLLOW_LINKS)) {
            long same = Files.mismatch(from, to);
            if (same < 0) return;
            boolean isJournal = to.getFileName().toString().endsWith(JournalFormat.FILE_SUFFIX);
            if (!isJournal || same < Math.min(Files.size(from), Files.size(to))) {
                clashes.add(output.path().relativize(to).toString().replace('\\', '/'));
                return;
            }
            if (Files.size(from) <= Files.size(to)) return; // an older copy of what is there
        }
        WholeFile.write(to, fresh -> {
            Files.copy(from, fresh);
            return true;
        });
    }

    /** By all that lies there now: in whatever order runs were joined, it says the same. */
    private void describe() throws IOException {
        Instant started = null;
        int format = JournalFormat.VERSION;
        List<RunFolder> all = output.shards();
        for (RunFolder shard : all) {
            RunDescription one;
            try {
                one = RunDescription.read(shard.runFile());
            } catch (IOException unreadable) {
                continue; // whoever reads the run is told
            }
            if (started == null || one.started().isBefore(started)) started = one.started();
            format = Math.max(format, one.format());
        }
        var description = new RunDescription(
                format,
                output.name(),
                started == null ? Instant.EPOCH : started,
                Map.of("joined", all.size() == 1 ? "1 run" : all.size() + " runs"));
        WholeFile.write(output.runFile(), fresh -> {
            description.writeIfAbsent(fresh);
            return true;
        });
    }
}
