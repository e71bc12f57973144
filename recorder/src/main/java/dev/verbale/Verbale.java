package dev.verbale;

import dev.verbale.event.PaperKept;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.internal.Carried;
import dev.verbale.internal.CsvText;
import dev.verbale.internal.ImagePaper;
import dev.verbale.internal.NoteText;
import dev.verbale.internal.Recorders;
import dev.verbale.recorder.Description;
import dev.verbale.recorder.Exchange;
import dev.verbale.recorder.PromisedPaper;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Step;
import java.awt.image.RenderedImage;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.function.Supplier;
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
        run(recorder().startStep(name), body);
    }

    private static <X extends Throwable> void run(Step step, Body<X> body) throws X {
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
     * Runs {@code body} as a step that should take no longer than {@code budget}. A step that does is marked, and goes on.
     */
    public static <X extends Throwable> void step(String name, Duration budget, Body<X> body) throws X {
        run(recorder().startStep(name).within(budget), body);
    }

    /**
     * Begins a step where a lambda does not fit. End it on the same thread, best with try-with-resources; see {@link Step}.
     */
    public static Step begin(String name) {
        return recorder().startStep(name);
    }

    /** Writes down a step that is not done, and why. */
    public static void skip(String name, String reason) {
        recorder().startStep(name).skipped(reason);
    }

    /**
     * Checks something and goes on whatever comes out: the test fails at its end, with all checks that failed. Where nobody
     * gathers them, which the JUnit extension does, a failed check fails the test at once.
     */
    public static void check(String name, Body<? extends Throwable> assertion) {
        Throwable failure = null;
        try {
            assertion.run();
        } catch (VirtualMachineError fatal) {
            throw fatal;
        } catch (Throwable failed) {
            failure = failed;
        }
        if (failure != null && !recorder().checked(name, failure)) throw sneaky(failure);
        if (failure == null) recorder().checked(name, null);
    }

    /**
     * Announces a value that must not be written down. From now on it is masked wherever it turns up, also URL-encoded, in
     * Base64 or escaped; values shorter than four characters are not.
     */
    public static void secret(String value) {
        recorder().secret(value);
    }

    /** Says what this test is about, how grave its failure is, who owns it; null leaves out. */
    public static void about(@Nullable String text, @Nullable String severity, @Nullable String owner) {
        recorder().describe(new Description(text, severity, owner, List.of()));
    }

    /** Links this test to something: a whole address, or a name that the settings turn into one, such as {@code GARDEN-17}. */
    public static void link(String name) {
        recorder().describe(new Description(null, null, null, List.of(name)));
    }

    /** {@code work} that belongs to the step that is open here and now, on whatever thread it runs. */
    public static Runnable carry(Runnable work) {
        return Carried.runnable(recorder(), work);
    }

    /** The same with a value. */
    public static <T> Callable<T> carry(Callable<T> work) {
        return Carried.callable(recorder(), work);
    }

    /** The same for a {@link Supplier}; of another name, since a lambda could not say which of two it is. */
    public static <T> Supplier<T> carrySupplier(Supplier<T> work) {
        return Carried.supplier(recorder(), work);
    }

    /** {@code executor}, and all that is handed to it belongs to the step that is open where it is handed over. */
    public static Executor carry(Executor executor) {
        return work -> executor.execute(carry(work));
    }

    /** The same for an executor service. */
    public static ExecutorService carry(ExecutorService executor) {
        return Carried.executor(recorder(), executor);
    }

    /**
     * Begins to write down a request, for clients that no adapter knows: give it what is sent and what came, and end it.
     *
     * @param method such as {@code GET}; of what is no HTTP, a word of its own
     * @param url where to
     */
    public static Exchange exchange(String method, String url) {
        return recorder().exchange(method, url);
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

    /** Moves {@code file} to the papers of this test, under its own name. */
    public static void attachMoved(Path file) {
        recorder().attachMoved(file);
    }

    /** Keeps {@code json}, which is JSON text. */
    public static void attachJson(String name, String json) {
        attach(name, json, "application/json");
    }

    /** Keeps a table, as comma-separated values (RFC 4180). */
    public static void attachTable(String name, List<String> header, List<? extends List<?>> rows) {
        Recorder recorder = recorder();
        if (recorder.isRecording()) attach(name, CsvText.of(header, rows), "text/csv");
    }

    /** Keeps a picture, as PNG. */
    public static void attachImage(String name, RenderedImage image) {
        Recorder recorder = recorder();
        if (recorder.isRecording()) ImagePaper.attach(recorder, name, image);
    }

    /** Promises a paper to this test that comes later, perhaps after the test has ended. */
    public static PromisedPaper promise(String name) {
        return recorder().promise(name, PaperKept.ATTACHMENT);
    }

    /**
     * Asks {@code source} for evidence whenever a step or test fails, as long as the scope that is current on this thread
     * lasts: the test, or, in the set-up of a class, the class. Announcing the same source again changes nothing.
     */
    public static void announce(EvidenceSource source) {
        recorder().announce(source);
    }

    /** A check hides what its body may throw; what it threw is thrown all the same. */
    @SuppressWarnings("unchecked") // erased: the cast does nothing
    private static <X extends Throwable> RuntimeException sneaky(Throwable failure) throws X {
        throw (X) failure;
    }

    private static Recorder recorder() {
        return Recorders.current();
    }
}
