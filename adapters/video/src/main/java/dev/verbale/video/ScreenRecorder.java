package dev.verbale.video;

import dev.verbale.Evidence;
import dev.verbale.Scope;
import dev.verbale.folder.RunFolder;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.Context;
import dev.verbale.vocabulary.AttachmentKind;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;

/**
 * Records what one browser or screen shows, for the tests that use it one after another: each has a video of its own, from its
 * first use to its end. Whoever has the frames hands them in as they come.
 *
 * <p>The setting {@code verbale.video} says which videos are kept: {@code failures}, {@code all} or {@code none}. They become
 * attachments of their tests when they are ready, perhaps after those ended. No call throws; from any thread.
 *
 * @since 0.2.0
 */
public final class ScreenRecorder {

    private static final AtomicInteger COUNT = new AtomicInteger();

    private final int number = COUNT.incrementAndGet();
    private final AdapterRecorder recorder;
    private final String policy;
    private final @Nullable RunFolder folder;
    private final CompletableFuture<Optional<Encoder>> encoder;
    private final Map<Integer, FrameSpool> spools = new ConcurrentHashMap<>();
    private volatile @Nullable FrameSpool current;
    private volatile byte @Nullable [] lastFrame;
    private volatile boolean stopped;
    private volatile boolean broken;

    /** One that is used up when what it records closes. */
    public ScreenRecorder() {
        this(AdapterRecorder.current());
    }

    /** One for another recorder than that of this JVM. */
    public ScreenRecorder(AdapterRecorder recorder) {
        this.recorder = recorder == null ? AdapterRecorder.none() : recorder;
        policy = this.recorder.setting(VideoAdapter.VIDEO);
        folder = opened(this.recorder.folder());
        encoder = isRecording()
                ? CompletableFuture.supplyAsync(() -> Encoder.find(this.recorder.setting(VideoAdapter.FFMPEG)))
                : CompletableFuture.completedFuture(Optional.empty());
    }

    private @Nullable RunFolder opened(@Nullable Path run) {
        if (run == null || policy.equals("none")) return null;
        try {
            var folder = new RunFolder(run);
            EncoderQueue.open(folder.spools());
            return folder;
        } catch (IOException closed) {
            recorder.log("There are no videos, for their folder could not be made: " + closed);
            return null;
        }
    }

    /** Whether frames are wanted at all. */
    public boolean isRecording() {
        return folder != null;
    }

    /** {@code scope}, a test or a container, uses what is recorded from now on. */
    public void use(Scope scope) {
        FrameSpool now = current;
        RunFolder to = folder;
        if (stopped || scope == null || to == null || (now != null && now.scope.id() == scope.id())) return;
        long pid = ProcessHandle.current().pid();
        FrameSpool spool = spools.computeIfAbsent(scope.id(), id -> new FrameSpool(scope, to.spool(pid, id, number)));
        synchronized (this) {
            // Together: a frame that came in between would be in neither video, and of a still page it is the only
            // one.
            current = spool;
            byte[] shown = lastFrame;
            if (shown != null) add(spool, shown);
        }
        if (policy.equals("all") && !spool.isKept())
            spool.keep(hasEncoder() ? recorder.attachLater("video", AttachmentKind.VIDEO) : null);
    }

    /** {@code image}, a JPEG or a PNG, is shown from now on. */
    public void frame(byte[] image) {
        frame(image, recorder.now());
    }

    /** A frame that was shown before: {@code at} by {@link Context#now}. */
    public void frame(byte[] image, long at) {
        if (stopped || !isRecording()) return;
        try {
            byte[] jpeg = Jpeg.of(image);
            synchronized (this) {
                lastFrame = jpeg;
                FrameSpool spool = current;
                if (spool != null) add(spool, jpeg, at);
            }
        } catch (IOException | RuntimeException unreadable) {
            breaks("A frame of the video could not be read", unreadable);
        }
    }

    private void add(FrameSpool spool, byte[] jpeg) {
        add(spool, jpeg, recorder.now());
    }

    private void add(FrameSpool spool, byte[] jpeg, long at) {
        try {
            spool.add(jpeg, at);
        } catch (IOException unwritten) {
            breaks("The video could not be written", unwritten);
        }
    }

    private void breaks(String what, Exception why) {
        if (!broken) recorder.log(what + ", and has gaps: " + why);
        broken = true;
    }

    /** The test of this thread failed: its video is to be kept. */
    public void failed(Evidence evidence) {
        FrameSpool own = spools.get(recorder.currentTest().id());
        FrameSpool spool = own == null ? current : own;
        if (spool == null || evidence == null || spool.isKept()) return;
        spool.keep(hasEncoder() && !spool.isEmpty() ? evidence.attachLater("video", AttachmentKind.VIDEO) : null);
    }

    private boolean hasEncoder() {
        return encoder.join().isPresent();
    }

    /** What is recorded closes: no more frames come. Videos wait for their tests' ends, for these may still fail. */
    public synchronized void stop() {
        FrameSpool spool = current;
        byte[] shown = lastFrame;
        if (spool != null && shown != null) add(spool, shown); // or the last frame would be shown for no time
        stopped = true;
        current = null;
        lastFrame = null;
    }

    /** {@code scope} ended: its video becomes its attachment, or goes. */
    public void ended(Scope scope) {
        FrameSpool spool = scope == null ? null : spools.remove(scope.id());
        if (spool == null) return;
        synchronized (this) {
            byte[] shown = lastFrame;
            if (spool == current) {
                current = null;
                if (shown != null && spool.isKept()) add(spool, shown);
            }
        }
        try {
            spool.end();
            if (spool.isKept() && spool.isEmpty())
                recorder.log("There is no video: no frame came from the browser or the screen in this test.");
            if (spool.isKept() && !spool.isEmpty() && spool.pending() == null && hasEncoder())
                spool.pending(
                        recorder.attachLater("video", AttachmentKind.VIDEO)); // it was empty when it was to be kept
            if (spool.isKept() && !spool.isEmpty()) EncoderQueue.encode(recorder, spool, encoder.join());
            else spool.discard();
        } catch (IOException stays) {
            breaks("The video could not be ended", stays);
        }
    }
}
