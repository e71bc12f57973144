package dev.verbale.pagewriter;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.jspecify.annotations.Nullable;

/**
 * Knows which JVM of a run ends last: each holds a shared lock on one file while it records, and the one that gets the file for
 * itself at its end has no other beside it. One that is killed loses its lock with its life.
 */
final class LastOfRun {

    /** In the run's folder, as long as somebody records. */
    static final String FILE = "writers.lock";

    private final Path file;
    private final FileChannel channel;
    private final FileLock shared;

    private LastOfRun(Path file, FileChannel channel, FileLock shared) {
        this.file = file;
        this.channel = channel;
        this.shared = shared;
    }

    /** This JVM records into {@code folder} from now on; null where the file system has no locks. */
    static @Nullable LastOfRun among(Path folder) {
        Path file = folder.resolve(FILE);
        try {
            FileChannel channel = FileChannel.open(
                    file, StandardOpenOption.CREATE, StandardOpenOption.READ, StandardOpenOption.WRITE);
            FileLock lock = channel.tryLock(0, Long.MAX_VALUE, true);
            if (lock != null) return new LastOfRun(file, channel, lock);
            channel.close();
        } catch (IOException | RuntimeException without) {
            return null;
        }
        return null;
    }

    /** This JVM records no more: does {@code work} where no other does either. */
    void leave(Runnable work) throws IOException {
        try (channel) {
            shared.release();
            FileLock alone = channel.tryLock();
            if (alone == null) return;
            Files.deleteIfExists(file);
            work.run();
        }
    }
}
