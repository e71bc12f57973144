package dev.verbale.publishing;

import dev.verbale.folder.Sha256;
import dev.verbale.folder.WholeFile;
import dev.verbale.journal.PlainFile;
import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.DirectoryNotEmptyException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** A folder of a disk, or one that several machines see. */
final class FolderStore implements SiteStore {

    private static final String LOCK = ".publishing.lock";
    private static final int LARGEST = 64 << 20;

    /** Locks of files are the whole JVM's. */
    private static final Object IN_THIS_JVM = new Object();

    private final Path root;

    FolderStore(Path root) throws IOException {
        this.root = root.toAbsolutePath().normalize();
        if (Files.exists(this.root) && !Files.isDirectory(this.root))
            throw new FileSystemException(root.toString(), null, "is a file, and a site is a folder");
        Files.createDirectories(this.root);
    }

    private Path file(String name) throws IOException {
        Path file = root.resolve(name).normalize();
        if (!file.startsWith(root) || file.equals(root))
            throw new FileSystemException(name, null, "lies outside the site");
        for (Path one = file; one != null && !one.equals(root); one = one.getParent())
            if (Files.isSymbolicLink(one))
                throw new FileSystemException(one.toString(), null, "is a link, which is not followed");
        return file;
    }

    @Override
    public @Nullable Stored read(String name) throws IOException {
        try {
            byte[] bytes = PlainFile.bytes(file(name), LARGEST);
            return new Stored(bytes, Sha256.of(bytes));
        } catch (NoSuchFileException none) {
            return null;
        }
    }

    @Override
    public Map<String, String> list(String prefix) throws IOException {
        Map<String, String> found = new TreeMap<>();
        try (Stream<Path> all = Files.walk(root)) {
            for (Path file : all.toList()) {
                String name = root.relativize(file).toString().replace('\\', '/');
                if (name.startsWith(prefix)
                        && !name.equals(LOCK)
                        && Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)) found.put(name, Sha256.of(file));
            }
        }
        return found;
    }

    @Override
    public @Nullable String bring(String name, Path to) throws IOException {
        Path from = file(name);
        if (!PlainFile.isThere(from)) return null;
        WholeFile.write(to, fresh -> {
            Files.copy(from, fresh);
            return true;
        });
        return Sha256.of(to);
    }

    @Override
    public void put(String name, Path from) throws IOException {
        WholeFile.write(file(name), fresh -> {
            Files.copy(from, fresh);
            return true;
        });
    }

    @Override
    public void copy(String from, String to) throws IOException {
        put(to, file(from));
    }

    @Override
    public @Nullable String replace(String name, byte[] bytes, @Nullable String version) throws IOException {
        synchronized (IN_THIS_JVM) {
            try (FileChannel channel =
                            FileChannel.open(file(LOCK), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
                    FileLock lock = channel.lock()) {
                if (!lock.isValid()) throw new IOException(root + " cannot be locked");
                Stored now = read(name);
                if (version == null
                        ? now != null
                        : now == null || !now.version().equals(version)) return null;
                WholeFile.write(file(name), fresh -> {
                    Files.write(fresh, bytes, StandardOpenOption.CREATE_NEW);
                    return true;
                });
                return Sha256.of(bytes);
            }
        }
    }

    @Override
    public void delete(String name) throws IOException {
        Path file = file(name);
        try {
            if (!Files.readAttributes(file, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS)
                    .isRegularFile()) throw new FileSystemException(file.toString(), null, "is no regular file");
        } catch (NoSuchFileException none) {
            return;
        }
        Files.deleteIfExists(file);
        for (Path folder = file.getParent(); folder != null && !folder.equals(root); folder = folder.getParent())
            try {
                Files.deleteIfExists(folder); // another publisher may have
            } catch (DirectoryNotEmptyException used) {
                return;
            }
    }

    @Override
    public String address(String name) {
        return root.resolve(name).toString();
    }

    @Override
    public void close() {
        // nothing is open
    }
}
