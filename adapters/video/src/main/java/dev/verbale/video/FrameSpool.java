package dev.verbale.video;

import dev.verbale.PendingAttachment;
import dev.verbale.Scope;
import java.io.FileOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;

/**
 * The frames of one test with their times, on disk as they come: what is in memory does not grow with them, and what is
 * on disk can be played when the JVM is killed. From any thread.
 */
final class FrameSpool {

    /** Where a frame lies in the file, and when it was shown. */
    private record Frame(long at, long offset, int length) {}

    final Scope scope;
    private final Path file;
    private final List<Frame> frames = new ArrayList<>();
    private @Nullable OutputStream out;
    private long written;
    private boolean kept;
    private @Nullable PendingAttachment pending;

    FrameSpool(Scope scope, Path file) {
        this.scope = scope;
        this.file = file;
    }

    Path file() {
        return file;
    }

    /** Adds what is shown from {@code taken} on, or from the last frame on where that is later. */
    synchronized void add(byte[] jpeg, long taken) throws IOException {
        long at = frames.isEmpty()
                ? taken
                : Math.max(taken, frames.get(frames.size() - 1).at());
        OutputStream to = out;
        if (to == null) {
            if (!frames.isEmpty()) return; // it is over
            to = new FileOutputStream(file.toFile());
            out = to;
            int[] size = Jpeg.size(jpeg);
            write(to, Matroska.head(size[0], size[1]));
        }
        long millis = frames.isEmpty() ? 0 : (at - begins()) / 1_000;
        byte[] cluster = Matroska.frame(millis, jpeg);
        frames.add(new Frame(at, written + cluster.length - jpeg.length, jpeg.length));
        write(to, cluster);
    }

    private void write(OutputStream to, byte[] bytes) throws IOException {
        to.write(bytes);
        written += bytes.length;
    }

    /** When its first frame was shown. */
    synchronized long begins() {
        return frames.isEmpty() ? 0 : frames.get(0).at();
    }

    synchronized boolean isEmpty() {
        return frames.isEmpty();
    }

    /** The video is to be kept, as {@code attachment}, which is null where nothing can make a video of it. Only the first counts. */
    synchronized void keep(@Nullable PendingAttachment attachment) {
        if (!kept) pending = attachment;
        kept = true;
    }

    synchronized void pending(PendingAttachment attachment) {
        pending = attachment;
    }

    synchronized boolean isKept() {
        return kept;
    }

    synchronized @Nullable PendingAttachment pending() {
        return pending;
    }

    /** Nothing comes any more. */
    synchronized void end() throws IOException {
        if (out != null) out.close();
        out = null;
    }

    /** Removes what is on disk. */
    synchronized void discard() throws IOException {
        end();
        Files.deleteIfExists(file);
    }

    /** Something to be done with a frame. */
    interface FrameUse {
        void use(long at, byte[] jpeg) throws IOException;
    }

    /** Gives {@code limit} frames, spread evenly, and the last. */
    synchronized void some(int limit, FrameUse use) throws IOException {
        Set<Integer> chosen = new TreeSet<>();
        for (int i = 0; i < limit; i++) chosen.add((int) ((long) i * frames.size() / limit));
        if (!frames.isEmpty()) chosen.add(frames.size() - 1);
        try (var in = new RandomAccessFile(file.toFile(), "r")) {
            for (int number : chosen) {
                if (number >= frames.size()) continue;
                Frame frame = frames.get(number);
                var jpeg = new byte[frame.length()];
                in.seek(frame.offset());
                in.readFully(jpeg);
                use.use(frame.at(), jpeg);
            }
        }
    }
}
