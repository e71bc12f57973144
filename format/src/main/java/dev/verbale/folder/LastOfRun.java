package dev.verbale.folder;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import org.jspecify.annotations.Nullable;

/**
 * Knows which JVM of a run ends last, and which one does what only one of them does: each holds a shared lock on one file while it records,
 * and the one that gets the file for itself at its end has no other beside it. One that is killed loses its locks with its life. Safe from
 * any thread.
 *
 * @since 0.2.0
 */
public final class LastOfRun {

    private static final long PRESENCE = 0;
    private static final long TURN = 1;

    private final Path file;
    private final FileChannel channel;
    private final FileLock shared;
    private @Nullable FileLock turn;

    private LastOfRun(Path file, FileChannel channel, FileLock shared) {
        this.file = file;
        this.channel = channel;
        this.shared = shared;
    }

    /**
     * This JVM is among those of the run in {@code folder} from now on; null where the file system has no locks.
     *
     * @param name of the file in the run's folder, of one kind of user each
     */
    public static @Nullable LastOfRun among(Path folder, String name) {
        Path file = folder.resolve(name);
        try {
            FileChannel channel = FileChannel.open(
                    file, StandardOpenOption.CREATE, StandardOpenOption.READ, StandardOpenOption.WRITE);
            FileLock lock = channel.tryLock(PRESENCE, 1, true);
            if (lock != null) return new LastOfRun(file, channel, lock);
            channel.close();
        } catch (IOException | RuntimeException without) {
            return null;
        }
        return null;
    }

    /** Whether this JVM is the one of them that does what one does; it stays so until it leaves, and then it is another's turn. */
    public synchronized boolean hasTurn() {
        if (turn != null) return true;
        try {
            turn = channel.tryLock(TURN, 1, false);
        } catch (IOException | OverlappingFileLockException another) {
            return false;
        }
        return turn != null;
    }

    /**
     * This JVM is done with the run: does {@code work} where no other is there.
     *
     * @throws IOException where the lock cannot be released
     */
    public synchronized void leave(Runnable work) throws IOException {
        try (channel) {
            shared.release();
            FileLock alone = channel.tryLock(PRESENCE, 1, false);
            if (alone == null) return;
            Files.deleteIfExists(file);
            work.run();
        }
    }
}
