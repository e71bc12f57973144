package dev.verbale.packing;

import dev.verbale.folder.RunFolder;
import dev.verbale.results.ResultsFormatException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileSystem;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;

/**
 * A run in a ZIP archive, which is read as it is: a {@link RunPacker pack}, or a folder of runs, or of one, that somebody else made an archive
 * of. Nothing is unpacked to the disk. What an archive can do to its reader is refused: more than {@value #MAX_FILES} files, or contents that
 * are hundreds of times larger than the archive; files that have other bytes than the archive says cannot be read.
 *
 * @since 0.2.0
 */
public final class PackedRun implements AutoCloseable {

    private static final int MAX_FILES = 1_000_000;
    private static final long SUSPICIOUS_SIZE = 1L << 30;
    private static final int SUSPICIOUS_RATIO = 200;

    /** Where runs may lie: at the top, in one folder, and in bags. */
    private static final int DEEPEST = 3;

    private final FileSystem archive;
    private final Path folder;

    private PackedRun(FileSystem archive, Path folder) {
        this.archive = archive;
        this.folder = folder;
    }

    /** Whether {@code path} is the name of a file that {@link #open} is for. */
    public static boolean isArchive(Path path) {
        return path.getFileSystem() == FileSystems.getDefault()
                && String.valueOf(path.getFileName()).toLowerCase(Locale.ROOT).endsWith(".zip")
                && Files.isRegularFile(path);
    }

    /**
     * Opens {@code file}.
     *
     * @throws ResultsFormatException where it is no archive, or is one that nobody should open; it says why
     * @throws IOException where it cannot be read
     */
    public static PackedRun open(Path file) throws IOException {
        long files = ArchiveEnd.of(file).files();
        if (files > MAX_FILES) throw refused(file, "it has " + files + " files", "A run has at most " + MAX_FILES);
        FileSystem archive;
        try {
            archive = FileSystems.newFileSystem(file, Map.of("accessMode", "readOnly"));
        } catch (IOException | RuntimeException broken) {
            throw refused(file, "it cannot be opened", String.valueOf(broken.getMessage()));
        }
        try {
            Path root = archive.getPath("/");
            refuseBomb(file, root);
            Path run = run(file, root);
            BagCheck.of(file, root);
            return new PackedRun(archive, run);
        } catch (IOException | RuntimeException refused) {
            archive.close();
            throw refused;
        }
    }

    /** The run's folder, or one that holds runs: a path in the archive, for as long as this is open. */
    public Path folder() {
        return folder;
    }

    private static void refuseBomb(Path file, Path root) throws IOException {
        long bytes = 0;
        try (Stream<Path> all = Files.walk(root)) {
            for (Path one : (Iterable<Path>) all.filter(Files::isRegularFile)::iterator) bytes += Files.size(one);
        } catch (UncheckedIOException unreadable) {
            throw unreadable.getCause();
        }
        if (bytes > SUSPICIOUS_SIZE && bytes / SUSPICIOUS_RATIO > Files.size(file))
            throw refused(
                    file,
                    "its contents are " + bytes / Math.max(1, Files.size(file)) + " times larger than itself",
                    "No run is like that");
    }

    private static Path run(Path file, Path root) throws IOException {
        List<Path> runs = new ArrayList<>();
        try (Stream<Path> all = Files.walk(root, DEEPEST)) {
            all.filter(Files::isDirectory)
                    .filter(one -> new RunFolder(one).exists())
                    .forEach(runs::add);
        }
        // The shards of a joined run lie deeper, in it.
        runs.removeIf(one -> runs.stream().anyMatch(other -> !other.equals(one) && one.startsWith(other)));
        if (runs.size() == 1) return runs.get(0);
        if (runs.isEmpty())
            throw refused(
                    file,
                    "there is no run in it",
                    hasPage(root)
                            ? "It has a page, which a browser shows where it is unpacked"
                            : "A run has a file run.json");
        Path around = runs.get(0).getParent();
        return around != null && runs.stream().allMatch(one -> around.equals(one.getParent())) ? around : root;
    }

    private static boolean hasPage(Path root) throws IOException {
        try (Stream<Path> all = Files.walk(root, DEEPEST + 1)) {
            return all.anyMatch(one -> one.endsWith("index.html"));
        }
    }

    static ResultsFormatException refused(Path file, String why, String more) {
        return new ResultsFormatException(
                file,
                "this archive is not read: " + why,
                more.replaceFirst("\\.$", ""),
                "Name a pack of 'verbale pack', or the archive of a run's folder");
    }

    @Override
    public void close() throws IOException {
        archive.close();
    }
}
