package dev.verbale.folder;

import dev.verbale.journal.JournalFormat;
import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.StringJoiner;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * What is inside one run's folder.
 *
 * <pre>
 * run.json                    what ran, see {@link RunDescription}
 * journals/WORKER.jsonl       the events of one JVM
 * tests/CLASS/TEST/           the attachments of one test
 * run/                        the attachments of no test
 * spools/                     frames of videos that are being recorded
 * shards/RUN/                 of a run that was joined of others: each of those, whole
 * </pre>
 *
 * @param path the folder itself
 * @since 0.2.0
 */
public record RunFolder(Path path) {

    /** The folder's name, which is the run's. */
    public String name() {
        Path name = path.toAbsolutePath().normalize().getFileName();
        return name == null ? "run" : name.toString(); // the root of an archive has none
    }

    /** Where the {@link RunDescription} is. Where it is missing, the folder is no run's. */
    public Path runFile() {
        return path.resolve("run.json");
    }

    /** Where the journals are. */
    public Path journals() {
        return path.resolve("journals");
    }

    /** The journal of one JVM. */
    public Path journal(String worker) {
        return journals().resolve(worker + JournalFormat.FILE_SUFFIX);
    }

    /** Where videos are while they are recorded. */
    public Path spools() {
        return path.resolve("spools");
    }

    /**
     * The frames of a video of the test {@code id} of the JVM {@code pid}, while that test runs: Matroska, each frame a JPEG. It
     * stays where the JVM is killed.
     *
     * @param screenRecorder counts what is recorded in the JVM: a test may use two browsers
     */
    public Path spool(long pid, int id, int screenRecorder) {
        return spools().resolve(pid + "-" + id + "-" + screenRecorder + ".mkv");
    }

    /** The spools of a test that are there, by name. */
    public List<Path> spools(long pid, int id) throws IOException {
        if (!Files.isDirectory(spools(), LinkOption.NOFOLLOW_LINKS)) return List.of();
        try (Stream<Path> all = Files.list(spools())) {
            String beginning = pid + "-" + id + "-";
            return all.filter(file -> file.getFileName().toString().startsWith(beginning)
                            && file.getFileName().toString().endsWith(".mkv")
                            && PlainFile.isThere(file))
                    .sorted()
                    .toList();
        }
    }

    /** Where the runs are that a joined run consists of. */
    public Path shardsFolder() {
        return path.resolve("shards");
    }

    /**
     * The runs that this one was joined of, in the order of their names; none where it was recorded itself. A link is none.
     *
     * @throws IOException where the folder is there and cannot be listed
     */
    public List<RunFolder> shards() throws IOException {
        if (!Files.isDirectory(shardsFolder(), LinkOption.NOFOLLOW_LINKS)) return List.of();
        try (Stream<Path> folders = Files.list(shardsFolder())) {
            return folders.filter(one -> Files.isDirectory(one, LinkOption.NOFOLLOW_LINKS))
                    .map(RunFolder::new)
                    .filter(RunFolder::exists)
                    .sorted(Comparator.comparing(RunFolder::name))
                    .toList();
        }
    }

    /** Where the page goes when nobody says otherwise. */
    public Path page() {
        return path.resolve("page");
    }

    /** Whether this is the folder of a run. */
    public boolean exists() {
        return PlainFile.isThere(runFile());
    }

    /**
     * What is called a journal, in the order of the names; none where there is no such folder. A link to a folder is none.
     *
     * @throws IOException where the folder is there and cannot be listed
     */
    public List<Path> journalFiles() throws IOException {
        if (!Files.isDirectory(journals(), LinkOption.NOFOLLOW_LINKS)) return List.of();
        try (Stream<Path> files = Files.list(journals())) {
            return files.filter(f -> f.getFileName().toString().endsWith(JournalFormat.FILE_SUFFIX))
                    .sorted()
                    .toList();
        }
    }

    /** {@code file}, a path below this folder, as journals name it: with forward slashes. */
    public String nameInJournal(Path file) {
        var name = new StringJoiner("/");
        path.relativize(file).forEach(part -> name.add(part.toString()));
        return name.toString();
    }

    /**
     * The file that a journal names. Journals come from elsewhere, and a page must not carry off a file that its run did not
     * write: only a regular file inside this folder is one, and no link is followed.
     */
    public FileInRun file(String nameInJournal) {
        Path root = path.toAbsolutePath().normalize();
        Path file;
        try {
            file = root.resolve(nameInJournal).normalize();
        } catch (InvalidPathException unusable) {
            return FileInRun.refused("has a name that is none on this machine");
        }
        if (!file.startsWith(root) || file.equals(root)) return FileInRun.refused("lies outside the run folder");
        for (Path one = file; one != null && !one.equals(root); one = one.getParent())
            if (Files.isSymbolicLink(one)) return FileInRun.refused("is a link, which is not followed");
        if (!Files.exists(file, LinkOption.NOFOLLOW_LINKS)) return FileInRun.refused("is missing");
        return PlainFile.isThere(file) ? new FileInRun(file, null) : FileInRun.refused("is no regular file");
    }

    /**
     * What is behind a name in a journal.
     *
     * @param path of the file; null where it is not to be opened
     * @param why it is not; null where it is
     */
    public record FileInRun(@Nullable Path path, @Nullable String why) {

        static FileInRun refused(String why) {
            return new FileInRun(null, why);
        }
    }
}
