package dev.verbale.video;

import dev.verbale.recorder.PromisedPaper;
import dev.verbale.recorder.Scope;
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
 * The pictures of one test with their times, on disk as they come: what is in memory does not grow with them, and what is
 * on disk can be played when the JVM is killed. From any thread.
 */
final class Film {

    /** Where a picture lies in the file, and when it was shown. */
    private record Picture(long at, long offset, int length) {}

    final Scope owner;
    private final Path file;
    private final List<Picture> pictures = new ArrayList<>();
    private @Nullable OutputStream out;
    private long written;
    private boolean kept;
    private @Nullable PromisedPaper promise;

    Film(Scope owner, Path file) {
        this.owner = owner;
        this.file = file;
    }

    Path file() {
        return file;
    }

    /** Adds what is shown from {@code taken} on, or from the last picture on where that is later. */
    synchronized void add(byte[] jpeg, long taken) throws IOException {
        long at = pictures.isEmpty()
                ? taken
                : Math.max(taken, pictures.get(pictures.size() - 1).at());
        OutputStream to = out;
        if (to == null) {
            if (!pictures.isEmpty()) return; // it is over
            to = new FileOutputStream(file.toFile());
            out = to;
            int[] size = Jpeg.size(jpeg);
            write(to, Matroska.head(size[0], size[1]));
        }
        long millis = pictures.isEmpty() ? 0 : (at - begins()) / 1_000;
        byte[] cluster = Matroska.picture(millis, jpeg);
        pictures.add(new Picture(at, written + cluster.length - jpeg.length, jpeg.length));
        write(to, cluster);
    }

    private void write(OutputStream to, byte[] bytes) throws IOException {
        to.write(bytes);
        written += bytes.length;
    }

    /** When its first picture was shown. */
    synchronized long begins() {
        return pictures.isEmpty() ? 0 : pictures.get(0).at();
    }

    synchronized boolean isEmpty() {
        return pictures.isEmpty();
    }

    /** It is to be kept, as {@code promised}, which is null where nothing can make a video of it. Only the first counts. */
    synchronized void keep(@Nullable PromisedPaper promised) {
        if (!kept) promise = promised;
        kept = true;
    }

    synchronized void promise(PromisedPaper promised) {
        promise = promised;
    }

    synchronized boolean isKept() {
        return kept;
    }

    synchronized @Nullable PromisedPaper promise() {
        return promise;
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

    /** Something to be done with a picture. */
    interface PictureUse {
        void take(long at, byte[] jpeg) throws IOException;
    }

    /** Gives {@code most} pictures, spread evenly, and the last. */
    synchronized void some(int most, PictureUse use) throws IOException {
        Set<Integer> chosen = new TreeSet<>();
        for (int i = 0; i < most; i++) chosen.add((int) ((long) i * pictures.size() / most));
        if (!pictures.isEmpty()) chosen.add(pictures.size() - 1);
        try (var in = new RandomAccessFile(file.toFile(), "r")) {
            for (int number : chosen) {
                if (number >= pictures.size()) continue;
                Picture picture = pictures.get(number);
                var jpeg = new byte[picture.length()];
                in.seek(picture.offset());
                in.readFully(jpeg);
                use.take(picture.at(), jpeg);
            }
        }
    }
}
