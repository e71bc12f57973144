package dev.verbale.hub;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/** A folder, which several hubs may see. */
final class ObjectFolder implements ObjectStorage {

    private static final int LETTERS_OF_FOLDER = 2;
    private static final String FRESH = "fresh-";

    private final Path folder;

    ObjectFolder(Path folder) throws IOException {
        this.folder = Files.createDirectories(folder);
    }

    @Override
    public Path fresh() throws IOException {
        return Files.createTempFile(folder, FRESH, "");
    }

    @Override
    public void put(String name, Path fresh) throws IOException {
        Path object = object(name);
        Files.createDirectories(object.getParent());
        if (!isThere(object)) Files.move(fresh, object, StandardCopyOption.ATOMIC_MOVE);
    }

    /** Whether it is; then it counts as new once more. */
    private static boolean isThere(Path object) throws IOException {
        try {
            Files.setLastModifiedTime(object, FileTime.from(Instant.now()));
            return true;
        } catch (NoSuchFileException none) {
            return false;
        }
    }

    @Override
    public InputStream open(String name, long from) throws IOException {
        InputStream content = Files.newInputStream(object(name));
        content.skipNBytes(from);
        return content;
    }

    @Override
    public void delete(String name) throws IOException {
        Files.deleteIfExists(object(name));
    }

    @Override
    public void older(Instant before, Names names) throws IOException {
        FileTime old = FileTime.from(before);
        for (Path file : all(folder)) {
            if (Files.isDirectory(file)) {
                List<String> some = new ArrayList<>();
                for (Path object : all(file))
                    if (isOlder(object, old)) some.add(object.getFileName().toString());
                names.are(some);
            } else if (file.getFileName().toString().startsWith(FRESH) && isOlder(file, old))
                Files.deleteIfExists(file); // of a hub that was killed
        }
    }

    private static boolean isOlder(Path file, FileTime old) throws IOException {
        try {
            return Files.getLastModifiedTime(file).compareTo(old) < 0;
        } catch (NoSuchFileException gone) {
            return false;
        }
    }

    private static List<Path> all(Path folder) throws IOException {
        try (Stream<Path> all = Files.list(folder)) {
            return all.toList();
        }
    }

    private Path object(String name) {
        return folder.resolve(name.substring(0, LETTERS_OF_FOLDER)).resolve(name);
    }
}
