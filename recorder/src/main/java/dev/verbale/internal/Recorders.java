package dev.verbale.internal;

import dev.verbale.recorder.Exchange;
import dev.verbale.recorder.PromisedPaper;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.RecorderOptions;
import dev.verbale.recorder.Step;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReferenceFieldUpdater;
import java.util.concurrent.locks.LockSupport;
import org.jspecify.annotations.Nullable;

/** Opens recorders, and holds the one of this JVM. */
public final class Recorders {

    /** Opening takes milliseconds. Who waits longer may hold what the opening thread needs, such as a logger's lock. */
    private static final long LONGEST_WAIT_NANOS = TimeUnit.SECONDS.toNanos(5);

    private static final Opening OPENING = new Opening();

    private static volatile @Nullable Recorder current;

    /** Whoever opens has not come back for seconds, and may never do. */
    private static volatile boolean isStuck;

    /** Calls that came where the stack could not hold even the first step of recording. Plain: a store needs no stack. */
    public static int lost;

    /** What stands for what could not begin. */
    public static final Step NO_STEP = DisabledRecorder.NO_STEP;

    public static final Exchange NO_EXCHANGE = NoExchange.NONE;
    public static final PromisedPaper NO_PROMISE = DisabledRecorder.NO_PROMISE;

    private Recorders() {}

    /** One that does nothing. */
    public static Recorder none() {
        return DisabledRecorder.NONE;
    }

    /** The one of this JVM; the first call opens it as the settings say. */
    public static Recorder current() {
        Recorder open = current;
        return open != null ? open : opened();
    }

    /** The one of this JVM where a call has opened it, and none otherwise. */
    public static Optional<Recorder> currentIfOpen() {
        return Optional.ofNullable(current);
    }

    /** A new one with a journal of its own; where that cannot be made, one warning says why and nothing is recorded. */
    public static Recorder open(RecorderOptions options) {
        return open(options == null ? RecorderOptions.defaults() : options, new ArrayList<>());
    }

    private static Recorder open(RecorderOptions options, List<String> problems) {
        if (!options.enabled()) return DisabledRecorder.NONE;
        try {
            FileRecorder recorder = FileRecorder.open(options, problems);
            Runtime.getRuntime().addShutdownHook(new Thread(recorder::end, "verbale-at-exit"));
            return recorder;
        } catch (Exception | LinkageError closed) {
            Problems.warn("Verbale records nothing, and the tests go on. The run's folder in " + options.rootOrDefault()
                    + " could not be made: " + NoteText.shown(closed)
                    + ". Make it writable, or set verbale.root to another folder.");
            return DisabledRecorder.NONE;
        }
    }

    /**
     * Not by the initialization of a class: that one waits without end, and a stack that ends in it spoils the class for the
     * rest of the JVM's life. What the opening thread itself records meanwhile, such as a logger's line, is not.
     */
    private static Recorder opened() {
        Thread me = Thread.currentThread();
        long from = System.nanoTime();
        while (true) {
            Recorder open = current;
            if (open != null) return open;
            Thread opener = OPENING.opener;
            if (opener == me || isStuck) return DisabledRecorder.NONE;
            if (opener == null && Opening.OPENER.compareAndSet(OPENING, null, me)) return openNow();
            if (System.nanoTime() - from > LONGEST_WAIT_NANOS) isStuck = true;
            if (me.isInterrupted()) Thread.yield(); // it would not be parked
            else LockSupport.parkNanos(Recorders.class, 100_000);
        }
    }

    private static Recorder openNow() {
        try {
            Recorder before = current;
            if (before != null) return before;
            Recorder recorder = ofSettings();
            current = recorder;
            return recorder;
        } finally {
            OPENING.opener = null; // a store: a call might find no stack, and leave everybody waiting
        }
    }

    /** Who opens now. */
    private static final class Opening {
        static final AtomicReferenceFieldUpdater<Opening, @Nullable Thread> OPENER =
                AtomicReferenceFieldUpdater.newUpdater(Opening.class, Thread.class, "opener");

        volatile @Nullable Thread opener;
    }

    private static Recorder ofSettings() {
        try {
            Settings settings = Settings.ofThisJvm();
            RecorderOptions options = settings.options();
            Recorder recorder = open(options, new ArrayList<>(settings.problems()));
            settings.facts().forEach(recorder::fact);
            if (options.logging().console()) ConsoleTee.install(recorder);
            return recorder;
        } catch (RuntimeException | LinkageError broken) {
            Problems.warn("Verbale records nothing, and the tests go on. It could not start: " + broken);
            return DisabledRecorder.NONE;
        }
    }
}
