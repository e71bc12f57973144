package dev.verbale.journal;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.FileSystemException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;

/**
 * Files that are nothing but files. A folder of a run may come from a stranger, who can put links and pipes in there.
 *
 * @since 0.2.0
 */
public final class PlainFile {

    private PlainFile() {}

    /** Whether {@code file} is a regular file, and no link to one. */
    public static boolean isThere(Path file) {
        return Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS);
    }

    /**
     * Opens {@code file} for reading.
     *
     * @throws NoSuchFileException where there is none
     * @throws IOException where it cannot be opened, or is a link, a folder, a pipe or a device
     */
    public static InputStream open(Path file) throws IOException {
        // Asked once: between two questions somebody may have put it there.
        if (!Files.readAttributes(file, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS)
                .isRegularFile())
            throw new FileSystemException(file.toString(), null, "is no regular file and is not opened");
        if (file.getFileSystem() == FileSystems.getDefault())
            return Files.newInputStream(file, LinkOption.NOFOLLOW_LINKS);
        return new ArchivedStream(file);
    }

    /**
     * The first bytes of {@code file}, which is not read further than {@code limit} bytes.
     *
     * @throws IOException as {@link #open} does, and where the file is longer
     */
    public static byte[] bytes(Path file, int limit) throws IOException {
        try (InputStream in = open(file)) {
            byte[] bytes = in.readNBytes(limit + 1);
            if (bytes.length > limit)
                throw new FileSystemException(file.toString(), null, "is longer than " + limit + " bytes");
            return bytes;
        }
    }
}
