package dev.verbale.history;

import dev.verbale.folder.RunName;
import dev.verbale.history.digest.DigestReader;
import dev.verbale.history.digest.DigestWriter;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.TableCache;
import dev.verbale.results.Problem;
import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.IntStream;

/**
 * A folder of digests, one file a run. Two histories become one by copying their files together; a run that is added twice is
 * there once. Several processes may add at the same time.
 *
 * @param path the folder itself; need not be there yet
 * @since 0.2.0
 */
public record HistoryFolder(Path path) {

    /** Where runs are remembered when nobody says otherwise: beside the project's own files, not among what a build cleans. */
    public static final String DEFAULT = ".verbale/history";

    private static final DateTimeFormatter TIME =
            DateTimeFormatter.ofPattern("yyyy-MM-dd_HHmmss").withZone(ZoneOffset.UTC);

    static final String SUFFIX = ".digest.jsonl.gz";

    /**
     * Remembers a run.
     *
     * @return the file
     * @throws IOException where it cannot be written
     */
    public Path add(RunDigest digest) throws IOException {
        make();
        Path file = file(digest.run(), digest.started());
        DigestWriter.write(digest, file);
        var kept = new ColumnFiles(path);
        ColumnFiles.stamp(file).ifPresent(stamp -> kept.write(file, stamp, RunColumns.of(digest)));
        kept.prune(files());
        return file;
    }

    /** A run's own name begins with its time. One that somebody gave may be that of every night: then the time stands before it. */
    private Path file(String run, Instant started) {
        String time = RunName.isOwn(run) ? "" : TIME.format(started) + "_";
        return path.resolve(time + plain(run) + SUFFIX);
    }

    private static String plain(String run) {
        return run.replaceAll("[^\\w.-]", "_");
    }

    /** What is remembered of the run with this name that began then; empty where nothing is. */
    public Optional<RunDigest> digest(String run, Instant started, Consumer<Problem> problems) {
        Path file = file(run, started);
        return Files.exists(file) ? DigestReader.read(file, problems) : Optional.empty();
    }

    /**
     * What is remembered of the newest run with this name; empty where nothing is.
     *
     * @throws IOException where the folder is there and cannot be listed
     */
    public Optional<RunDigest> digest(String run, Consumer<Problem> problems) throws IOException {
        String end = plain(run) + SUFFIX;
        Path found = null;
        for (Path file : files()) {
            String name = String.valueOf(file.getFileName());
            boolean isTimed = name.length() == end.length() + 18 && name.endsWith("_" + end);
            if (name.equals(end) || isTimed) found = file;
        }
        return found == null ? Optional.empty() : DigestReader.read(found, problems);
    }

    /** Makes the folder where it is not there. */
    public void make() throws IOException {
        Files.createDirectories(path);
        keepOutOfVersionControl();
    }

    /** Only in a folder that is ours to rule: {@code .verbale}. A shared drive is nobody's repository. */
    private void keepOutOfVersionControl() throws IOException {
        Path around = path.toAbsolutePath().normalize().getParent();
        if (around == null || !String.valueOf(around.getFileName()).equals(".verbale")) return;
        try {
            Files.writeString(around.resolve(".gitignore"), "*\n", java.nio.file.StandardOpenOption.CREATE_NEW);
        } catch (FileAlreadyExistsException asItIs) {
            // whoever changed it, meant it
        }
    }

    /**
     * The digests' files, in the order of their runs' names, which is that of their times.
     *
     * @throws IOException where the folder is there and cannot be listed
     */
    public List<Path> files() throws IOException {
        List<Path> files = new ArrayList<>();
        if (!Files.isDirectory(path)) return files;
        try (DirectoryStream<Path> all = Files.newDirectoryStream(path, "*" + SUFFIX)) {
            all.forEach(files::add);
        } catch (java.nio.file.DirectoryIteratorException broken) {
            throw broken.getCause();
        }
        files.sort(java.util.Comparator.comparing(file -> String.valueOf(file.getFileName())));
        return files;
    }

    /**
     * Reads all of it.
     *
     * @param problems hears of each file, or line, that cannot be read; the rest is there
     * @throws IOException where the folder cannot be listed
     */
    public History read(Consumer<Problem> problems) throws IOException {
        var tables = new TableCache();
        var kept = new ColumnFiles(path);
        // Side by side: unpacking is most of the work.
        List<List<Problem>> met = new ArrayList<>();
        List<Path> files = files();
        files.forEach(file -> met.add(new ArrayList<>()));
        List<RunColumns> columns = IntStream.range(0, files.size())
                .parallel()
                .mapToObj(i -> columns(files.get(i), kept, tables, met.get(i)))
                .flatMap(Optional::stream)
                .toList();
        met.forEach(list -> list.forEach(problems));
        return History.ofColumns(columns);
    }

    /** As they were kept, or made of the digest; those of one that has problems are not kept, for it is to say so again. */
    private static Optional<RunColumns> columns(
            Path file, ColumnFiles kept, TableCache tables, List<Problem> problems) {
        Optional<RunColumns> before = kept.read(file);
        if (before.isPresent()) return before;
        Optional<ColumnFiles.Stamp> stamp = ColumnFiles.stamp(file);
        Optional<RunColumns> made = DigestReader.readWithoutSteps(file, problems::add, tables)
                .map(RunColumns::of)
                .map(kept::shared);
        if (stamp.isPresent() && made.isPresent() && problems.isEmpty()) kept.write(file, stamp.get(), made.get());
        return made;
    }
}
