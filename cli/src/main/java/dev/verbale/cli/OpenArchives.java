package dev.verbale.cli;

import dev.verbale.packing.PackedRun;
import java.io.IOException;
import java.nio.file.FileSystems;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;

/** The archives whose runs a command reads as they are; open until it is over. */
final class OpenArchives {

    private static final Map<Path, PackedRun> OPEN = new HashMap<>();

    private OpenArchives() {}

    /** Where the run is that {@code path} names: in it, where it is an archive. */
    static synchronized Path run(Path path) throws IOException {
        if (!PackedRun.isArchive(path)) return path;
        Path file = path.toAbsolutePath().normalize();
        PackedRun run = OPEN.get(file);
        if (run == null) {
            run = PackedRun.open(file);
            OPEN.put(file, run);
        }
        return run.folder();
    }

    /** The archive that {@code path} is in, or {@code path} where that is in none. */
    static synchronized Path outside(Path path) {
        if (path.getFileSystem() == FileSystems.getDefault()) return path;
        for (Map.Entry<Path, PackedRun> one : OPEN.entrySet())
            if (one.getValue().folder().getFileSystem() == path.getFileSystem()) return one.getKey();
        return path;
    }

    /**
     * Where something goes that is made of a run and belongs to it.
     *
     * @param inFolder where it goes in the run's folder
     */
    static Path beside(Path inFolder) {
        Path archive = outside(inFolder);
        if (archive.equals(inFolder)) return inFolder;
        String stem = archive.getFileName().toString().replaceFirst("\\.[^.]*$", "");
        return archive.resolveSibling(stem + "-" + inFolder.getFileName());
    }

    static synchronized void close() {
        for (PackedRun one : OPEN.values())
            try {
                one.close();
            } catch (IOException unclosed) {
                // it was only read
            }
        OPEN.clear();
    }
}
