package dev.verbale.video;

import dev.verbale.event.PaperKept;
import dev.verbale.recorder.PromisedPaper;
import dev.verbale.recorder.Recorder;
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
 * Makes videos of films, one after another and beside the tests, in a process of its own. The JVM's end waits for those
 * that are not ready, up to a limit.
 */
final class Darkroom {

    private static final int MOST_PICTURES = 40;
    private static final int LAST_WAIT_SECONDS = 25;

    private static final Set<Path> FOLDERS = new HashSet<>();
    private static CompletableFuture<?> last = CompletableFuture.completedFuture(null);

    private Darkroom() {}

    /** Makes the folder that films lie in while they are made. At the JVM's end it goes, where nothing is left in it. */
    static synchronized void open(Path folder) throws IOException {
        Files.createDirectories(folder);
        if (FOLDERS.isEmpty()) Runtime.getRuntime().addShutdownHook(new Thread(Darkroom::close, "verbale-films"));
        FOLDERS.add(folder);
    }

    /** Takes over {@code film}, which is over and kept. Returns at once. */
    static synchronized void develop(Recorder recorder, Film film, Optional<Encoder> encoder) {
        last = last.handle((done, broken) -> null)
                .thenCompose(turn -> developed(recorder, film, encoder))
                .exceptionally(broken -> null);
    }

    private static CompletableFuture<?> developed(Recorder recorder, Film film, Optional<Encoder> encoder) {
        PromisedPaper promise = film.promise();
        if (encoder.isEmpty() || promise == null) {
            pictures(
                    recorder,
                    film,
                    "There is no encoder for videos: no ffmpeg on the PATH, in verbale.video.ffmpeg, or as"
                            + " the artifact org.bytedeco:ffmpeg. Pictures are kept instead.");
            return CompletableFuture.completedFuture(null);
        }
        Path video = sibling(film, ".webm");
        Path log = sibling(film, ".txt");
        try {
            return encoder.get().start(film.file(), video, log).onExit().thenAccept(ended -> {
                if (ended.exitValue() == 0) {
                    promise.keep(video, film.begins());
                    discard(recorder, film);
                } else {
                    pictures(recorder, film, "The encoder failed: " + said(log) + " Pictures are kept instead.");
                }
                delete(video);
                delete(log);
            });
        } catch (IOException unstarted) {
            pictures(recorder, film, "The encoder could not start: " + unstarted + ". Pictures are kept instead.");
            return CompletableFuture.completedFuture(null);
        }
    }

    private static Path sibling(Film film, String ending) {
        return film.file().resolveSibling(film.file().getFileName().toString().replace(".mkv", ending));
    }

    private static void pictures(Recorder recorder, Film film, String why) {
        recorder.fact("video", why);
        try {
            film.some(MOST_PICTURES, (at, jpeg) -> {
                String name = String.format(Locale.ROOT, "film at %.1f s", (at - film.begins()) / 1e6);
                recorder.paper(film.owner, name, PaperKept.FILMSTRIP, new ByteArrayInputStream(jpeg), "image/jpeg", at);
            });
        } catch (IOException unreadable) {
            recorder.note("The film's pictures could not be read: " + unreadable);
        }
        discard(recorder, film);
    }

    private static void discard(Recorder recorder, Film film) {
        try {
            film.discard();
        } catch (IOException stays) {
            recorder.note("The film " + film.file() + " could not be removed: " + stays);
        }
    }

    private static String said(Path log) {
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
        synchronized (Darkroom.class) {
            pending = last;
        }
        try {
            pending.get(LAST_WAIT_SECONDS, TimeUnit.SECONDS);
        } catch (InterruptedException | ExecutionException | TimeoutException late) {
            // its film stays in the run folder, and can be played
        }
        for (Path folder : FOLDERS) {
            File[] left = folder.toFile().listFiles();
            if (left != null && left.length == 0) delete(folder);
        }
    }
}
