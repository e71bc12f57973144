package dev.verbale.video;

import dev.verbale.event.PaperKept;
import dev.verbale.evidence.Evidence;
import dev.verbale.folder.RunFolder;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;

/**
 * Films one browser or screen for the tests that use it one after another: each has a film of its own, from its first use
 * to its end. Whoever has the pictures hands them in as they come.
 *
 * <p>The setting {@code verbale.video} says which films are kept: {@code failures}, {@code all} or {@code none}. They become
 * papers of their tests when they are ready, perhaps after those ended. No call throws; from any thread.
 */
public final class Camera {

    private static final List<String> POLICIES = List.of("failures", "all", "none");

    private static final AtomicInteger CAMERAS = new AtomicInteger();

    private final int number = CAMERAS.incrementAndGet();
    private final Recorder recorder;
    private final String policy;
    private final @Nullable RunFolder folder;
    private final CompletableFuture<Optional<Encoder>> encoder;
    private final Map<Integer, Film> films = new ConcurrentHashMap<>();
    private volatile @Nullable Film current;
    private volatile byte @Nullable [] lastPicture;
    private volatile boolean stopped;
    private volatile boolean broken;

    /** A camera that is used up when what it films closes. */
    public Camera(Recorder recorder) {
        this.recorder = recorder == null ? Recorder.none() : recorder;
        policy = this.recorder.setting("verbale.video", "failures", POLICIES);
        folder = opened(this.recorder.folder());
        encoder = films()
                ? CompletableFuture.supplyAsync(
                        () -> Encoder.find(this.recorder.setting("verbale.video.ffmpeg", "", List.of())))
                : CompletableFuture.completedFuture(Optional.empty());
    }

    private @Nullable RunFolder opened(@Nullable Path run) {
        if (run == null || policy.equals("none")) return null;
        try {
            var folder = new RunFolder(run);
            Darkroom.open(folder.films());
            return folder;
        } catch (IOException closed) {
            recorder.note("There are no films, for their folder could not be made: " + closed);
            return null;
        }
    }

    /** Whether pictures are wanted at all. */
    public boolean films() {
        return folder != null;
    }

    /** {@code owner}, a test or a container, uses what is filmed from now on. */
    public void use(Scope owner) {
        Film now = current;
        RunFolder to = folder;
        if (stopped || owner == null || to == null || (now != null && now.owner.id() == owner.id())) return;
        long pid = ProcessHandle.current().pid();
        Film film = films.computeIfAbsent(owner.id(), id -> new Film(owner, to.film(pid, id, number)));
        synchronized (this) {
            // Together: a picture that came in between would be in neither film, and of a still page it is the only
            // one.
            current = film;
            byte[] shown = lastPicture;
            if (shown != null) add(film, shown);
        }
        if (policy.equals("all") && !film.isKept())
            film.keep(hasEncoder() ? recorder.promise("video", PaperKept.VIDEO) : null);
    }

    /** Shows {@code picture}, a JPEG or a PNG, from now on. */
    public void picture(byte[] picture) {
        picture(picture, recorder.now());
    }

    /** The same for one that was taken before: {@code at} by {@link Recorder#now}. */
    public void picture(byte[] picture, long at) {
        if (stopped || !films()) return;
        try {
            byte[] jpeg = Jpeg.of(picture);
            synchronized (this) {
                lastPicture = jpeg;
                Film film = current;
                if (film != null) add(film, jpeg, at);
            }
        } catch (IOException | RuntimeException unreadable) {
            breaks("A picture of the film could not be read", unreadable);
        }
    }

    private void add(Film film, byte[] jpeg) {
        add(film, jpeg, recorder.now());
    }

    private void add(Film film, byte[] jpeg, long at) {
        try {
            film.add(jpeg, at);
        } catch (IOException unwritten) {
            breaks("The film could not be written", unwritten);
        }
    }

    private void breaks(String what, Exception why) {
        if (!broken) recorder.note(what + ", and has gaps: " + why);
        broken = true;
    }

    /** The test of this thread failed: its film is to be kept. */
    public void failed(Evidence evidence) {
        Film own = films.get(recorder.owner().id());
        Film film = own == null ? current : own;
        if (film == null || evidence == null || film.isKept()) return;
        film.keep(hasEncoder() && !film.isEmpty() ? evidence.promise("video", PaperKept.VIDEO) : null);
    }

    private boolean hasEncoder() {
        return encoder.join().isPresent();
    }

    /** What is filmed closes: no more pictures come. Films wait for their tests' ends, for these may still fail. */
    public synchronized void stop() {
        Film film = current;
        byte[] shown = lastPicture;
        if (film != null && shown != null) add(film, shown); // or the last picture would be shown for no time
        stopped = true;
        current = null;
        lastPicture = null;
    }

    /** {@code owner} ended: its film becomes its paper, or goes. */
    public void ended(Scope owner) {
        Film film = owner == null ? null : films.remove(owner.id());
        if (film == null) return;
        synchronized (this) {
            byte[] shown = lastPicture;
            if (film == current) {
                current = null;
                if (shown != null && film.isKept()) add(film, shown);
            }
        }
        try {
            film.end();
            if (film.isKept() && film.isEmpty())
                recorder.note("There is no video: no picture came from the browser or the screen in this test.");
            if (film.isKept() && !film.isEmpty() && film.promise() == null && hasEncoder())
                film.promise(recorder.promise("video", PaperKept.VIDEO)); // it was empty when it was to be kept
            if (film.isKept() && !film.isEmpty()) Darkroom.develop(recorder, film, encoder.join());
            else film.discard();
        } catch (IOException stays) {
            breaks("The film could not be ended", stays);
        }
    }
}
