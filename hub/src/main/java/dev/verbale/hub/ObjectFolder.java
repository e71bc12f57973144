package dev.verbale.hub;

import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;

/** Contents of files that are whole, each under its own SHA-256: the same content is there once, whoever sent it. */
final class ObjectFolder {

    private static final int LETTERS_OF_FOLDER = 2;

    private final Path folder;

    ObjectFolder(Path folder) throws IOException {
        this.folder = Files.createDirectories(folder);
    }

    /** Keeps all of {@code content}, which is there when this returns, whatever happens then. Gives the hash. */
    String put(InputStream content) throws IOException {
        Path fresh = Files.createTempFile(folder, "fresh-", "");
        try {
            String name;
            try (FileChannel file = FileChannel.open(fresh, StandardOpenOption.WRITE)) {
                name = Sha256.copy(content, Channels.newOutputStream(file));
                file.force(true); // its chunks go next
            }
            Path object = object(name);
            Files.createDirectories(object.getParent());
            if (!Files.exists(object)) Files.move(fresh, object, StandardCopyOption.ATOMIC_MOVE);
            return name;
        } finally {
            Files.deleteIfExists(fresh);
        }
    }

    /** @throws NoSuchFileException where it is not there */
    InputStream open(String name) throws IOException {
        return Files.newInputStream(object(name));
    }

    private Path object(String name) {
        return folder.resolve(name.substring(0, LETTERS_OF_FOLDER)).resolve(name);
    }
}
