package dev.verbale.acceptance;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;

/** The files of this project as they are written, without what a build makes of them. */
final class Checkout {

    static final Path ROOT = Path.of("..").toAbsolutePath().normalize();

    private static final Set<String> MADE = Set.of("target", "node_modules", ".git", "package-lock.json");

    private Checkout() {}

    static List<Path> files() {
        List<Path> files = new ArrayList<>();
        try {
            Files.walkFileTree(ROOT, new SimpleFileVisitor<>() {
                @Override
                public FileVisitResult preVisitDirectory(Path directory, BasicFileAttributes attributes) {
                    return MADE.contains(directory.getFileName().toString())
                            ? FileVisitResult.SKIP_SUBTREE
                            : FileVisitResult.CONTINUE;
                }

                @Override
                public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) {
                    if (attributes.isRegularFile()
                            && !MADE.contains(file.getFileName().toString())) {
                        files.add(file);
                    }
                    return FileVisitResult.CONTINUE;
                }
            });
        } catch (IOException cannot) {
            throw new UncheckedIOException(cannot);
        }
        return files;
    }

    /** The sources of an example, without what was built of them. */
    static void copy(Path example, Path to) throws IOException {
        try (Stream<Path> files = Files.walk(example)) {
            for (Path file : (Iterable<Path>) files.filter(Files::isRegularFile)
                    .filter(file -> !file.startsWith(example.resolve("target")))::iterator) {
                Path copied = to.resolve(example.relativize(file).toString());
                Files.createDirectories(copied.getParent());
                Files.copy(file, copied);
            }
        }
    }
}
