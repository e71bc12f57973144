package dev.verbale.video;

import dev.verbale.MediaType;
import dev.verbale.PendingAttachment;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.ByteArrayInputStream;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/**
 * Makes videos of spooled frames, one after another and beside the tests, in a process of its own. The JVM's end waits for those
 * that are not ready, up to a limit.
 */
final class EncoderQueue {

    private static final int MAX_FRAMES = 40;
    private static final int LAST_WAIT_SECONDS = 25;

    private static final Set<Path> FOLDERS = new HashSet<>();
    private static CompletableFuture<?> last = CompletableFuture.completedFuture(null);

    private EncoderQueue() {}

    /** Makes the folder that frames lie in while they are recorded. At the JVM's end it goes, where nothing is left in it. */
    static synchronized void open(Path folder) throws IOException {
        Files.createDirectories(folder);
        if (FOLDERS.isEmpty()) Runtime.getRuntime().addShutdownHook(new Thread(EncoderQueue::close, "verbale-videos"));
        FOLDERS.add(folder);
    }

    /** Takes over {@code spool}, which is over and kept. Returns at once. */
    static synchronized void encode(AdapterRecorder recorder, FrameSpool spool, Optional<Encoder> encoder) {
        last = last.handle((done, broken) -> null)
                .thenCompose(turn -> encoded(recorder, spool, encoder))
                .exceptionally(broken -> null);
    }

    private static CompletableFuture<?> encoded(AdapterRecorder recorder, FrameSpool spool, Optional<Encoder> encoder) {
        PendingAttachment pending = spool.pending();
        if (encoder.isEmpty() || pending == null) {
            frames(
                    recorder,
                    spool,
                    "There is no encoder for videos: no ffmpeg on the PATH, in verbale.video.ffmpeg, or as"
                            + " the artifact org.bytedeco:ffmpeg. Frames are kept instead.");
            return CompletableFuture.completedFuture(null);
        }
        Path video = sibling(spool, ".webm");
        Path log = sibling(spool, ".txt");
        try {
            return encoder.get().start(spool.file(), video, log).onExit().thenAccept(ended -> {
                if (ended.exitValue() == 0) {
                    pending.complete(video, spool.begins());
                    discard(recorder, spool);
                } else {
                    frames(recorder, spool, "The encoder failed: " + text(log) + " Frames are kept instead.");
                }
                delete(video);
                delete(log);
            });
        } catch (IOException unstarted) {
            frames(recorder, spool, "The encoder could not start: " + unstarted + ". Frames are kept instead.");
            return CompletableFuture.completedFuture(null);
        }
    }

    private static Path sibling(FrameSpool spool, String extension) {
        return spool.file().resolveSibling(spool.file().getFileName().toString().replace(".mkv", extension));
    }

    private static void frames(AdapterRecorder recorder, FrameSpool spool, String why) {
        recorder.fact("video", why);
        try {
            spool.some(MAX_FRAMES, (at, jpeg) -> {
                String name = String.format(Locale.ROOT, "frame at %.1f s", (at - spool.begins()) / 1e6);
                recorder.attach(
                        spool.scope, name, AttachmentKind.FRAMES, new ByteArrayInputStream(jpeg), MediaType.JPEG, at);
            });
        } catch (IOException unreadable) {
            recorder.log("The frames of a video could not be read: " + unreadable);
        }
        discard(recorder, spool);
    }

    private static void discard(AdapterRecorder recorder, FrameSpool spool) {
        try {
            spool.discard();
        } catch (IOException stays) {
            recorder.log("The frames " + spool.file() + " could not be removed: " + stays);
        }
    }

    private static String text(Path log) {
        try {
            return Files.readString(log).lines().limit(3).reduce("", (all, line) -> all + line + ". ");
        } catch (IOException nothing) {
            return "";
        }
    }

    private static void delete(Path file) {
        try {
            Files.deleteIfExists(file);
        } catch (IOException stays) {
            // a file that is left over harms nobody
        }
    }

    private static void close() {
        CompletableFuture<?> pending;
        synchronized (EncoderQueue.class) {
            pending = last;
        }
        try {
            pending.get(LAST_WAIT_SECONDS, TimeUnit.SECONDS);
        } catch (InterruptedException | ExecutionException | TimeoutException late) {
            // its frames stay in the run folder, and can be played
        }
        for (Path folder : FOLDERS) {
            File[] left = folder.toFile().listFiles();
            if (left != null && left.length == 0) delete(folder);
        }
    }
}
