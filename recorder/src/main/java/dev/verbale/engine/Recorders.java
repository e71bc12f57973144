package dev.verbale.engine;

import dev.verbale.Exchange;
import dev.verbale.MediaType;
import dev.verbale.PendingAttachment;
import dev.verbale.Recorder;
import dev.verbale.RecorderOptions;
import dev.verbale.Registration;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.border.Engine;
import dev.verbale.border.LostCalls;
import dev.verbale.border.ShownValue;
import dev.verbale.engine.journal.Problems;
import dev.verbale.engine.log.ConsoleTee;
import dev.verbale.engine.run.OtherVersions;
import dev.verbale.engine.run.Selection;
import dev.verbale.engine.run.TestedModule;
import dev.verbale.engine.settings.CoreSettings;
import dev.verbale.engine.settings.Settings;
import dev.verbale.spi.AdapterExchange;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.AdapterStep;
import dev.verbale.spi.Entered;
import dev.verbale.stack.HeapSpace;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.StepKind;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicReferenceFieldUpdater;
import java.util.concurrent.locks.LockSupport;
import org.jspecify.annotations.Nullable;

/** Opens recorders, and holds the one of this JVM. */
public final class Recorders implements Engine<Recorder, RecorderOptions> {

    /** Where the opening thread waits itself for so long, somebody who waits for it may hold what it needs, such as a logger's lock. */
    private static final long LONGEST_WAIT_NANOS = TimeUnit.SECONDS.toNanos(5);

    /** Opening takes milliseconds, and on a machine that has no processor for it seconds. */
    private static final long LONGEST_OPENING_NANOS = TimeUnit.MINUTES.toNanos(1);

    /** Memory, files and threads come back, and somebody may make room on a disk. */
    private static final int MAX_TRIES = 12;

    private static final long FIRST_PAUSE_NANOS = TimeUnit.MILLISECONDS.toNanos(50);
    private static final long LONGEST_PAUSE_NANOS = TimeUnit.SECONDS.toNanos(10);

    private static final Opening OPENING = new Opening();

    /**
     * What calls name or give back before they come to the guard: made here, where there is stack. A class whose initialization
     * ends in an overflow is lost to the JVM, and each later call of a test's would throw.
     */
    @SuppressWarnings("UnusedVariable") // that it is made is its use
    private static final List<Object> AHEAD = List.of(
            AdapterRecorder.none(),
            Step.NONE,
            AdapterStep.NONE,
            Exchange.NONE,
            AdapterExchange.NONE,
            PendingAttachment.NONE,
            Registration.NONE,
            Scope.NONE,
            Entered.NOWHERE,
            MediaType.UNKNOWN,
            About.NOTHING,
            StepKind.ACTION);

    private static volatile @Nullable AdapterRecorder current;

    /** Whoever opens has not come back for seconds, and may never do. */
    private static volatile boolean isStuck;

    /** As {@link Engine#loaded} makes it. */
    public Recorders() {}

    /** The first call opens it as the settings say. */
    @Override
    public Recorder current() {
        Recorder open = current;
        return open != null ? open : opened();
    }

    @Override
    public Optional<Recorder> currentIfOpen() {
        return Optional.ofNullable(current);
    }

    @Override
    public Recorder open(RecorderOptions options) {
        List<String> problems = new ArrayList<>();
        AdapterRecorder opened = open(
                options == null ? RecorderOptions.defaults() : options, InstalledAdapters.of(problems), problems, true);
        return opened == null ? AdapterRecorder.none() : opened;
    }

    /** Null where it cannot be opened now. */
    private static @Nullable AdapterRecorder open(
            RecorderOptions options, InstalledAdapters adapters, List<String> problems, boolean warns) {
        if (!options.enabled()) return AdapterRecorder.none();
        try {
            var recorder = new FileRecorder(options, adapters, problems);
            Runtime.getRuntime().addShutdownHook(new Thread(recorder::end, "verbale-at-exit"));
            return recorder;
        } catch (Exception | LinkageError closed) {
            OPENING.why = ShownValue.of(closed);
            if (warns)
                Problems.warn("Verbale records nothing, and the tests go on. The run's folder in "
                        + options.rootOrDefault() + " could not be made: " + ShownValue.of(closed)
                        + ". Make it writable, or set verbale.root to another folder.");
            return null;
        }
    }

    /**
     * Not by the initialization of a class: that one waits without end, and a stack that ends in it spoils the class for the
     * rest of the JVM's life. What the opening thread itself records meanwhile, such as a logger's line, is not.
     */
    private static AdapterRecorder opened() {
        Thread me = Thread.currentThread();
        long from = System.nanoTime();
        long waitsSince = from;
        while (true) {
            AdapterRecorder open = current;
            if (open != null) return open;
            if (OPENING.tries > 0 && System.nanoTime() - OPENING.nextTry < 0) return missed();
            Thread opener = OPENING.opener;
            if (opener == me) return AdapterRecorder.none();
            if (isStuck) return missed();
            if (opener == null && Opening.OPENER.compareAndSet(OPENING, null, me)) return openNow();
            long now = System.nanoTime();
            if (opener == null || !waits(opener)) waitsSince = now;
            if (now - waitsSince > LONGEST_WAIT_NANOS || now - from > LONGEST_OPENING_NANOS) isStuck = true;
            if (me.isInterrupted()) Thread.yield(); // it would not be parked
            else LockSupport.parkNanos(Recorders.class, 100_000);
        }
    }

    private static boolean waits(Thread opener) {
        Thread.State state = opener.getState();
        return state == Thread.State.BLOCKED || state == Thread.State.WAITING || state == Thread.State.TIMED_WAITING;
    }

    private static AdapterRecorder openNow() {
        try {
            AdapterRecorder before = current;
            if (before != null) return before;
            HeapSpace.ensureForFirstCall();
            AdapterRecorder recorder = ofSettings();
            if (recorder != null) current = recorder;
            return recorder != null ? recorder : triesLater();
        } catch (OutOfMemoryError full) {
            if (OPENING.tries == 0) warnOfMemory();
            return triesLater();
        } finally {
            OPENING.opener = null; // a store: a call might find no stack, and leave everybody waiting
        }
    }

    private static AdapterRecorder triesLater() {
        int tries = OPENING.tries + 1;
        OPENING.tries = tries;
        if (tries >= MAX_TRIES) current = AdapterRecorder.none();
        OPENING.nextTry = System.nanoTime() + Math.min(LONGEST_PAUSE_NANOS, FIRST_PAUSE_NANOS << tries);
        return missed();
    }

    /** A call whose entry is missing once there is a run. */
    private static AdapterRecorder missed() {
        LostCalls.count++;
        return AdapterRecorder.none();
    }

    private static void warnOfMemory() {
        OPENING.why = "there was no memory for it";
        try {
            Problems.warn(
                    "Verbale records nothing so far, and the tests go on. There is no memory to begin with; later calls try"
                            + " again.");
        } catch (OutOfMemoryError none) {
            // the run says it, where there is one in the end
        }
    }

    /** Who opens now. */
    private static final class Opening {
        static final AtomicReferenceFieldUpdater<Opening, @Nullable Thread> OPENER =
                AtomicReferenceFieldUpdater.newUpdater(Opening.class, Thread.class, "opener");

        volatile @Nullable Thread opener;

        /** How many did not succeed; written by the opener alone, as what follows. */
        volatile int tries;

        volatile long nextTry;
        volatile @Nullable String why;
    }

    /** Where no setting says which module of the build this JVM tests, its folder does. */
    private static RecorderOptions inModule(RecorderOptions options) {
        if (!options.enabled() || options.settings().containsKey(CoreSettings.MODULE.key())) return options;
        Map<String, String> settings = new HashMap<>(options.settings());
        settings.put(CoreSettings.MODULE.key(), TestedModule.ofThisJvm());
        return options.withSettings(settings);
    }

    /** Null where it cannot be opened now. */
    private static @Nullable AdapterRecorder ofSettings() {
        boolean isFirst = OPENING.tries == 0;
        try {
            List<String> problems = new ArrayList<>();
            if (!isFirst)
                problems.add(
                        "recording could not begin at the first call: " + OPENING.why + "; what was before is missing");
            Optional<String> versions = OtherVersions.ofRecorder(Recorders.class.getClassLoader());
            if (versions.isPresent()) problems.add(versions.get());
            InstalledAdapters adapters = InstalledAdapters.of(problems);
            Settings settings = Settings.ofThisJvm(adapters.settings());
            RecorderOptions options = inModule(settings.options());
            problems.addAll(settings.problems());
            AdapterRecorder recorder = open(options, adapters, problems, isFirst);
            if (recorder == null) return null;
            Selection.ofThisJvm().forEach(recorder::fact);
            settings.facts().forEach(recorder::fact);
            if (options.logging().console()) ConsoleTee.install(recorder);
            if (recorder instanceof FileRecorder file) file.listen();
            return recorder;
        } catch (RuntimeException | LinkageError broken) {
            OPENING.why = ShownValue.of(broken);
            if (isFirst) Problems.warn("Verbale records nothing, and the tests go on. It could not start: " + broken);
            return null;
        }
    }
}
