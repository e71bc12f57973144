package dev.verbale.hub;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.stream.Stream;

/** Folders that the hub made itself. */
final class Folders {

    private Folders() {}

    /** Deletes one with all that is in it; links are deleted, and not followed. */
    static void delete(Path folder) throws IOException {
        if (!Files.isDirectory(folder)) return;
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path one : all.sorted(Comparator.reverseOrder()).toList()) Files.deleteIfExists(one);
        } catch (UncheckedIOException gone) {
            throw gone.getCause();
        }
    }
}
