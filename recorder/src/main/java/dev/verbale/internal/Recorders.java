package dev.verbale.internal;

import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.RecorderOptions;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** Opens recorders, and holds the one of this JVM. */
public final class Recorders {

    private static volatile boolean opened;

    private Recorders() {}

    /** One that does nothing. */
    public static Recorder none() {
        return new DisabledRecorder();
    }

    /** The one of this JVM; the first call opens it as the settings say. */
    public static Recorder current() {
        return OfThisJvm.RECORDER;
    }

    /** The one of this JVM where a call has opened it, and none otherwise. */
    public static Optional<Recorder> currentIfOpen() {
        return opened ? Optional.of(current()) : Optional.empty();
    }

    /** A new one with a journal of its own; where that cannot be made, one warning says why and nothing is recorded. */
    public static Recorder open(RecorderOptions options) {
        return open(options, new ArrayList<>());
    }

    private static Recorder open(RecorderOptions options, List<String> problems) {
        if (!options.enabled()) return new DisabledRecorder();
        try {
            FileRecorder recorder = FileRecorder.open(options, problems);
            Runtime.getRuntime().addShutdownHook(new Thread(recorder::end, "verbale-end"));
            return recorder;
        } catch (Exception closed) {
            Problems.warn("Verbale records nothing, and the tests go on. The run's folder in " + options.rootOrDefault()
                    + " could not be made: " + closed + ". Make it writable, or set verbale.root to another folder.");
            return new DisabledRecorder();
        }
    }

    /** Opened when first touched; the JVM sees to it that this happens once. */
    private static final class OfThisJvm {
        static final Recorder RECORDER = ofSettings();

        private static Recorder ofSettings() {
            opened = true;
            try {
                Settings settings = Settings.ofThisJvm();
                RecorderOptions options = settings.options();
                Recorder recorder = open(options, new ArrayList<>(settings.problems()));
                settings.facts().forEach(recorder::fact);
                if (options.logging().console()) ConsoleTee.install(recorder);
                return recorder;
            } catch (RuntimeException | LinkageError broken) {
                Problems.warn("Verbale records nothing, and the tests go on. It could not start: " + broken);
                return new DisabledRecorder();
            }
        }
    }
}
