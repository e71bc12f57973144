package dev.verbale.folder;

import java.io.IOException;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.UUID;

/**
 * A file that is there whole or not at all: it is written beside its place, and moved there. Whoever reads meanwhile meets what was there
 * before.
 *
 * @since 0.2.0
 */
public final class WholeFile {

    private WholeFile() {}

    /** Writes a file. */
    @FunctionalInterface
    public interface Writing {
        /**
         * @param fresh where to write it; nothing is there yet
         * @return whether it is to take its place; it is deleted otherwise
         * @throws IOException where it cannot be written; it does not take its place then
         */
        boolean write(Path fresh) throws IOException;
    }

    /**
     * Puts what {@code writing} writes in the place of {@code file}, which may be there and is replaced. Folders around it are made.
     *
     * @throws IOException where that cannot be done; what was there before still is
     */
    public static void write(Path file, Writing writing) throws IOException {
        Path target = file.toAbsolutePath().normalize();
        Path folder = target.getParent();
        if (folder == null) throw new IOException(file + " is no file");
        Files.createDirectories(folder);
        Path fresh = folder.resolve(".verbale-" + UUID.randomUUID() + ".tmp");
        try {
            if (!writing.write(fresh)) return;
            try {
                Files.move(fresh, target, StandardCopyOption.ATOMIC_MOVE);
            } catch (AtomicMoveNotSupportedException elsewhere) {
                Files.move(fresh, target, StandardCopyOption.REPLACE_EXISTING);
            }
        } finally {
            Files.deleteIfExists(fresh);
        }
    }
}
