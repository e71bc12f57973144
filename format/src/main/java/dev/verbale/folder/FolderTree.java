package dev.verbale.folder;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import org.jspecify.annotations.Nullable;

/**
 * Folders that were made here, with all that is in them.
 *
 * @since 0.2.0
 */
public final class FolderTree {

    private FolderTree() {}

    /**
     * Deletes {@code folder}, where it is there. A link is deleted itself, and not what it leads to.
     *
     * @throws IOException where something in it cannot be deleted; the rest may be gone
     */
    public static void delete(Path folder) throws IOException {
        if (!Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS)) return;
        Files.walkFileTree(folder, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) throws IOException {
                Files.deleteIfExists(file);
                return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult postVisitDirectory(Path inner, @Nullable IOException failed) throws IOException {
                if (failed != null) throw failed;
                Files.deleteIfExists(inner);
                return FileVisitResult.CONTINUE;
            }
        });
    }
}
