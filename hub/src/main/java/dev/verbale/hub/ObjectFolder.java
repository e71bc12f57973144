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
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Stream;

/** Contents of files that are whole, each under its own SHA-256: the same content is there once, whoever sent it. */
final class ObjectFolder {

    private static final int LETTERS_OF_FOLDER = 2;

    private static final String FRESH = "fresh-";
    private static final String ASIDE = ".aside";
    private static final Duration YOUNG = Duration.ofDays(1);

    private final Path folder;

    ObjectFolder(Path folder) throws IOException {
        this.folder = Files.createDirectories(folder);
    }

    /** Keeps all of {@code content}, which is there when this returns, whatever happens then. Gives the hash. */
    String put(InputStream content) throws IOException {
        Path fresh = Files.createTempFile(folder, FRESH, "");
        try {
            String name;
            try (FileChannel file = FileChannel.open(fresh, StandardOpenOption.WRITE)) {
                name = Sha256.copy(content, Channels.newOutputStream(file));
                file.force(true); // its chunks go next
            }
            Path object = object(name);
            Files.createDirectories(object.getParent());
            if (!isThere(object)) Files.move(fresh, object, StandardCopyOption.ATOMIC_MOVE);
            return name;
        } finally {
            Files.deleteIfExists(fresh);
        }
    }

    /** Whether it is; then it counts as new once more, and no sweep takes it before the database has it. */
    private static boolean isThere(Path object) throws IOException {
        try {
            Files.setLastModifiedTime(object, FileTime.from(Instant.now()));
            return true;
        } catch (NoSuchFileException none) {
            return false;
        }
    }

    /**
     * Takes away what nobody needs, where it has been there for a day: somebody may be about to need what is newer.
     *
     * @param isNeeded asked twice, as it is put aside between
     */
    void sweep(Instant now, Predicate<String> isNeeded) throws IOException {
        FileTime old = FileTime.from(now.minus(YOUNG));
        for (Path file : files()) {
            String name = file.getFileName().toString();
            if (name.endsWith(ASIDE)) { // by a hub that was killed between
                putBack(file, isNeeded);
                continue;
            }
            if (Files.getLastModifiedTime(file).compareTo(old) > 0) continue;
            if (name.startsWith(FRESH)) Files.deleteIfExists(file); // of a hub that was killed
            else if (!isNeeded.test(name)) takeAway(file, old, isNeeded);
        }
    }

    private static void takeAway(Path file, FileTime old, Predicate<String> isNeeded) throws IOException {
        String name = file.getFileName().toString();
        Path aside = file.resolveSibling(name + ASIDE);
        Files.move(file, aside, StandardCopyOption.REPLACE_EXISTING);
        boolean stays = Files.getLastModifiedTime(aside).compareTo(old) > 0 || isNeeded.test(name);
        if (stays && !Files.exists(file)) Files.move(aside, file);
        else Files.deleteIfExists(aside);
    }

    private static void putBack(Path aside, Predicate<String> isNeeded) throws IOException {
        String name = aside.getFileName().toString().replace(ASIDE, "");
        Path file = aside.resolveSibling(name);
        if (!Files.exists(file) && isNeeded.test(name)) Files.move(aside, file);
        else Files.deleteIfExists(aside);
    }

    private List<Path> files() throws IOException {
        try (Stream<Path> all = Files.walk(folder, 2)) {
            return all.filter(Files::isRegularFile).toList();
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
