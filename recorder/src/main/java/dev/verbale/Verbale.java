package dev.verbale;

import dev.verbale.evidence.EvidenceSource;
import dev.verbale.internal.NoteText;
import dev.verbale.internal.Recorders;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Step;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * Writes into the minutes of the test that runs on this thread, or of the run where there is none.
 *
 * <pre>{@code
 * Verbale.step("Swap plot 12 with plot 7", () -> {
 *     Verbale.note("rota before: {}", rota);
 *     rotaPage.swap(12, 7);
 *     Verbale.attach("rota.csv", rotaPage.asCsv(), "text/csv");
 * });
 * }</pre>
 *
 * <p>When a call has returned, what it recorded is with the operating system: a JVM killed right after keeps it. No call
 * throws, except that {@link #step} passes on what its body throws, the same instance. What went wrong in recording
 * itself is a problem of the run and is shown with it. Where recording is switched off, calls do nothing else than run
 * the bodies they are given.
 */
public final class Verbale {

    private Verbale() {}

    /** Runs {@code body} as a step, timed, inside the step that is open on this thread. */
    public static <X extends Throwable> void step(String name, Body<X> body) throws X {
        Step step = recorder().startStep(name);
        try {
            body.run();
        } catch (Throwable failure) {
            step.failed(failure);
            throw failure; // the user's own exception, the same instance
        }
        step.passed();
    }

    /** Runs {@code work} as a step, timed, inside the step that is open on this thread, and gives its value back. */
    public static <T extends @Nullable Object, X extends Throwable> T step(String name, Work<T, X> work) throws X {
        Step step = recorder().startStep(name);
        T value;
        try {
            value = work.run();
        } catch (Throwable failure) {
            step.failed(failure);
            throw failure;
        }
        step.passed();
        return value;
    }

    /**
     * Writes a line.
     *
     * @param text each {@code {}} in it is replaced by the next of {@code values}; values without a place are appended
     */
    public static void note(String text, @Nullable Object... values) {
        Recorder recorder = recorder();
        if (recorder.isRecording()) recorder.note(NoteText.of(text, values));
    }

    /**
     * Names a value that this test works with. It is shown with the test, and the test can be found by it.
     *
     * @param value shown as {@link String#valueOf(Object)} gives it now
     */
    public static void data(String name, @Nullable Object value) {
        recorder().data(name, value);
    }

    /** States something that is true of the whole run, such as the browser's version. The last value for a name stays. */
    public static void fact(String name, @Nullable Object value) {
        recorder().fact(name, value);
    }

    /**
     * Keeps {@code text} as a paper of this test.
     *
     * @param name what a reader sees, such as {@code rota.csv}; need not be unique
     * @param mediaType such as {@code text/csv}
     */
    public static void attach(String name, String text, String mediaType) {
        attach(name, String.valueOf(text).getBytes(StandardCharsets.UTF_8), mediaType);
    }

    /** Keeps {@code content}, as it is now, as a paper of this test; the name and type are as in the call above. */
    public static void attach(String name, byte[] content, String mediaType) {
        recorder().attach(name, content, mediaType);
    }

    /**
     * Keeps what {@code content} still gives as a paper of this test. It is copied before this returns, with constant
     * memory; closing it is left to the caller.
     */
    public static void attach(String name, InputStream content, String mediaType) {
        recorder().attach(name, content, mediaType);
    }

    /** Keeps a copy of {@code file} as a paper of this test, under the file's own name. The type follows from that. */
    public static void attach(Path file) {
        recorder().attach(file);
    }

    /**
     * Asks {@code source} for evidence whenever a step or test fails, as long as the scope that is current on this thread
     * lasts: the test, or, in the set-up of a class, the class. Announcing the same source again changes nothing.
     */
    public static void announce(EvidenceSource source) {
        recorder().announce(source);
    }

    private static Recorder recorder() {
        return Recorders.current();
    }
}
