package dev.verbale;

import dev.verbale.border.Engine;
import dev.verbale.border.LostCalls;
import dev.verbale.content.CsvText;
import dev.verbale.content.PngImage;
import dev.verbale.content.TextStream;
import java.awt.image.RenderedImage;
import java.io.IOException;
import java.io.InputStream;
import java.lang.System.Logger.Level;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/**
 * Records what a test does, in the test that runs on this thread, or in the run where there is none.
 *
 * <pre>{@code
 * Verbale.step("Swap plot 12 with plot 7", () -> {
 *     Verbale.log("plots before: {}", rotaPage.days());
 *     rotaPage.swap(12, 7);
 *     Verbale.attach("rota.csv", rotaPage.asCsv(), MediaType.CSV);
 * });
 * }</pre>
 *
 * <p>When a call has returned, what it recorded is with the operating system: a JVM killed right after keeps it. No call
 * throws, except that {@link #step} passes on what its action throws, the same instance. What went wrong in recording
 * itself is a problem of the run and is shown with it. Where recording is switched off, calls do nothing else than run
 * the bodies they are given.
 *
 * @since 0.2.0
 */
public final class Verbale {

    /**
     * What a call needs that finds no memory or no stack: made with this class, since a class whose initialization ends in that is
     * lost to the JVM.
     */
    @SuppressWarnings("UnusedVariable") // that it is made is its use
    private static final List<Object> AHEAD = ahead();

    private static List<Object> ahead() {
        LostCalls.count = 0;
        Engine.isThere();
        return List.of(Step.NONE, Exchange.NONE, PendingAttachment.NONE, Registration.NONE);
    }

    private static final String NO_BODY = "it was given nothing to do";

    private Verbale() {}

    // Each call catches for itself: where the stack ends, a method that catches for all of them could not be called. An
    // InternalError is what the JVM throws where the stack ends while it links a lambda of the engine's for the first
    // time.

    /**
     * Runs {@code action} as a step, timed, inside the step that is open on this thread.
     *
     * <pre>{@code
     * Verbale.step("Open the rota", () -> rotaPage.open());
     * }</pre>
     */
    public static <X extends Throwable> void step(String name, ThrowingRunnable<X> action) throws X {
        Step step = Step.NONE;
        try {
            step = recorder().startStep(name);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
        run(step, action);
    }

    private static <X extends Throwable> void run(Step step, @Nullable ThrowingRunnable<X> action) throws X {
        if (action == null) {
            step.skipped(NO_BODY);
            return;
        }
        try {
            action.run();
        } catch (Throwable failure) {
            try {
                step.failed(failure);
            } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
                LostCalls.count++;
            }
            throw failure; // the user's own exception, the same instance
        }
        try {
            step.passed();
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Runs {@code work} as a step, timed, inside the step that is open on this thread, and gives its value back; null where
     * {@code work} is null.
     *
     * <pre>{@code
     * String csv = Verbale.step("Export the rota", () -> rotaPage.asCsv());
     * }</pre>
     */
    public static <T extends @Nullable Object, X extends Throwable> T step(String name, ThrowingSupplier<T, X> work)
            throws X {
        var done = new Done<T, X>(work);
        step(name, done);
        return done.value;
    }

    /**
     * Runs {@code action} as a step that should take no longer than {@code budget}. A step that does is marked, and goes on.
     *
     * <pre>{@code
     * Verbale.step("Load the rota", Duration.ofSeconds(2), () -> rotaPage.open());
     * }</pre>
     */
    public static <X extends Throwable> void step(String name, Duration budget, ThrowingRunnable<X> action) throws X {
        Step step = Step.NONE;
        try {
            step = recorder().startStep(name).within(budget);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
        run(step, action);
    }

    /**
     * Begins a step where a lambda does not fit. End it on the same thread, best with try-with-resources; see {@link Step}.
     *
     * <pre>{@code
     * try (Step step = Verbale.begin("Swap plots")) {
     *     rotaPage.swap(12, 7);
     *     step.passed();
     * }
     * }</pre>
     */
    public static Step begin(String name) {
        try {
            return recorder().startStep(name);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
            return Step.NONE;
        }
    }

    /**
     * Records a step that is not done, and why.
     *
     * <pre>{@code
     * Verbale.skip("Water the greenhouse", "it rained");
     * }</pre>
     */
    public static void skip(String name, String reason) {
        try {
            recorder().startStep(name).skipped(reason);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Checks something and goes on whatever comes out: the test fails at its end, with all checks that failed. Where nobody
     * gathers them, which the JUnit extension does, a failed check fails the test at once.
     *
     * <pre>{@code
     * Verbale.check("the rota has seven days", () -> assertEquals(7, rotaPage.days()));
     * Verbale.check("plot 12 has an owner", () -> assertEquals("Ada", rotaPage.ownerOf(12)));
     * }</pre>
     */
    public static void check(String name, ThrowingRunnable<? extends Throwable> assertion) {
        if (assertion == null) {
            skip(name, NO_BODY);
            return;
        }
        Throwable failure = null;
        try {
            assertion.run();
        } catch (VirtualMachineError fatal) {
            throw fatal;
        } catch (Throwable failed) {
            failure = failed;
        }
        boolean gathered = failure == null;
        try {
            gathered |= recorder().checked(name, failure);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
        if (failure != null && !gathered) throw sneaky(failure);
    }

    /**
     * Checks that a value is the expected one, as {@link #check(String, ThrowingRunnable)} checks: the test goes on. What was found
     * is recorded of a check that passed, too, so that the rows of a test's data can be told apart by it.
     *
     * <pre>{@code
     * Verbale.check("days of the rota", 7, rotaPage.days());
     * }</pre>
     *
     * @param expected compared with {@code actual} by its {@code equals}; arrays by what is in them
     * @param actual shown as {@link String#valueOf(Object)} gives it now
     */
    public static void check(String name, @Nullable Object expected, @Nullable Object actual) {
        Throwable failure;
        try {
            failure = ValuesDiffer.of(expected, actual);
        } catch (VirtualMachineError fatal) {
            throw fatal;
        } catch (Throwable broken) {
            failure = broken; // an equals of the suite's own may throw
        }
        boolean gathered = failure == null;
        try {
            gathered |= recorder().checked(name, failure, actual);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
        if (failure != null && !gathered) throw sneaky(failure);
    }

    /**
     * Names a value that must not be written down. When this has returned, it is masked wherever it turns up, on every
     * thread, also URL-encoded, in Base64 or escaped; values shorter than four characters are not.
     *
     * <pre>{@code
     * Verbale.secret(gate.token());
     * }</pre>
     */
    public static void secret(String value) {
        try {
            recorder().secret(value);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Tells what this test is about, for somebody who does not read its code. It replaces what was said before.
     *
     * <pre>{@code
     * Verbale.about("Swapping, also of a day with itself");
     * }</pre>
     */
    public static void about(String text) {
        try {
            recorder().about(text);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Tells more of what this test is about, such as who cares for it. What {@code about} leaves out stays as it was said before,
     * and a link without an address gets the one that the settings know.
     *
     * <pre>{@code
     * Verbale.about(About.of().severity("grave").owner("Ada").link("GARDEN-17").build());
     * }</pre>
     */
    public static void about(dev.verbale.vocabulary.About about) {
        try {
            recorder().about(about);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Links this test to something: a whole address, or a name that the settings turn into one, such as {@code GARDEN-17}.
     *
     * <pre>{@code
     * Verbale.link("GARDEN-17");
     * }</pre>
     */
    public static void link(String name) {
        try {
            recorder().link(name);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * {@code work} that belongs to the step that is open here and now, on whatever thread it runs; null gives null.
     *
     * <pre>{@code
     * new Thread(Verbale.carry(() -> rotaPage.swap(12, 7))).start();
     * }</pre>
     */
    public static Runnable carry(Runnable work) {
        try {
            return work == null ? work : recorder().carry(work);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
            return work;
        }
    }

    /**
     * {@code work} with a value, carried: a {@link Callable} and a {@link Supplier} in one. A supplier that is there already is carried by
     * its method, as in {@code carry(supplier::get)}.
     *
     * <pre>{@code
     * CompletableFuture.supplyAsync(Verbale.carry(() -> rotaPage.asCsv()));
     * }</pre>
     */
    public static <T extends @Nullable Object> CarriedTask<T> carry(Callable<T> work) {
        try {
            return work == null ? nothing() : recorder().carry(work);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
            return new UncarriedTask<>(work);
        }
    }

    @SuppressWarnings("NullAway") // as it came
    private static <T extends @Nullable Object> CarriedTask<T> nothing() {
        return null;
    }

    /**
     * {@code executor}, and all that is handed to it belongs to the step that is open where it is handed over.
     *
     * <pre>{@code
     * Executor pool = Verbale.carry(ForkJoinPool.commonPool());
     * pool.execute(() -> rotaPage.swap(12, 7));
     * }</pre>
     */
    public static Executor carry(Executor executor) {
        try {
            return executor == null ? executor : new Carrying(executor);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
            return executor;
        }
    }

    /**
     * {@code executor}, and all that is submitted to it belongs to the step that is open where it is submitted.
     *
     * <pre>{@code
     * ExecutorService pool = Verbale.carry(Executors.newFixedThreadPool(2));
     * pool.submit(() -> rotaPage.asCsv());
     * }</pre>
     */
    public static ExecutorService carry(ExecutorService executor) {
        try {
            return executor == null ? executor : recorder().carry(executor);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
            return executor;
        }
    }

    /**
     * Begins an exchange, for clients that no adapter knows: give it what is sent and what came, and end it.
     *
     * <pre>{@code
     * Exchange exchange = Verbale.exchange("ASK", "tcp://gate:7070");
     * exchange.requestBody(question, "text/plain");
     * exchange.responseBody(gate.ask(question), "text/plain").ended();
     * }</pre>
     *
     * @param method such as {@code GET}; of what is no HTTP, a word of its own
     * @param url where to
     */
    public static Exchange exchange(String method, String url) {
        try {
            return recorder().exchange(method, url);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
            return Exchange.NONE;
        }
    }

    /**
     * Logs a line.
     *
     * <pre>{@code
     * Verbale.log("plot {} has {} beds", 12, beds);
     * }</pre>
     *
     * @param text each {@code {}} in it is replaced by the next of {@code values}; values that are left over are appended
     */
    public static void log(String text, @Nullable Object... values) {
        try {
            recorder().log(text, values);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Logs a line of a level, by which readers of the page can leave it out.
     *
     * <pre>{@code
     * Verbale.log(Level.WARNING, "plot {} is dry", 12);
     * }</pre>
     */
    public static void log(Level level, String text, @Nullable Object... values) {
        try {
            recorder().log(level, text, values);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Names a value that this test works with. It is shown with the test, and the test can be found by it.
     *
     * <pre>{@code
     * Verbale.data("plot", 12);
     * }</pre>
     *
     * @param value shown as {@link String#valueOf(Object)} gives it now
     */
    public static void data(String name, @Nullable Object value) {
        try {
            recorder().data(name, value);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * States something that is true of the whole run, such as the browser's version. The last value for a name stays.
     *
     * <pre>{@code
     * Verbale.fact("browser", browser.version());
     * }</pre>
     */
    public static void fact(String name, @Nullable Object value) {
        try {
            recorder().fact(name, value);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Attaches {@code text} to this test.
     *
     * <pre>{@code
     * Verbale.attach("rota.csv", rotaPage.asCsv(), MediaType.CSV);
     * }</pre>
     *
     * @param name what a reader sees, such as {@code rota.csv}; need not be unique
     * @param type such as {@link MediaType#CSV}
     */
    public static void attach(String name, String text, MediaType type) {
        try {
            recorder().attach(name, new Text(text), type);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Attaches {@code content}, as it is now, to this test; the name and type are as in the call above.
     *
     * <pre>{@code
     * Verbale.attach("gate", camera.image(), MediaType.JPEG);
     * }</pre>
     */
    public static void attach(String name, byte[] content, MediaType type) {
        try {
            recorder().attach(name, content, type);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Attaches what {@code content} still gives to this test. It is copied before this returns, with constant
     * memory; closing it is left to the caller.
     *
     * <pre>{@code
     * try (InputStream log = gate.log()) {
     *     Verbale.attach("gate.log", log, MediaType.TEXT);
     * }
     * }</pre>
     */
    public static void attach(String name, InputStream content, MediaType type) {
        try {
            recorder().attach(name, content, type);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Attaches a copy of {@code file} to this test, under the file's own name; of a folder, copies of all files in
     * it. The type follows from the name.
     *
     * <pre>{@code
     * Verbale.attach(Path.of("target/plan.pdf"));
     * }</pre>
     */
    public static void attach(Path file) {
        try {
            recorder().attach(file);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Moves {@code file} to the attachments of this test, under its own name.
     *
     * <pre>{@code
     * Verbale.attachMoved(Path.of("target/session.webm"));
     * }</pre>
     */
    public static void attachMoved(Path file) {
        try {
            recorder().attachMoved(file);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Attaches {@code json}, which is JSON text.
     *
     * <pre>{@code
     * Verbale.attachJson("answer", "{\"plot\":12}");
     * }</pre>
     */
    public static void attachJson(String name, String json) {
        attach(name, json, MediaType.JSON);
    }

    /**
     * Attaches a table, as comma-separated values (RFC 4180).
     *
     * <pre>{@code
     * Verbale.attachTable("rota", List.of("day", "who"), List.of(List.of("Mon", "Ada"), List.of("Tue", "Ben")));
     * }</pre>
     */
    public static void attachTable(String name, List<String> header, List<? extends List<?>> rows) {
        try {
            recorder().attach(name, new Table(header, rows), MediaType.CSV);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Attaches an image, as PNG.
     *
     * <pre>{@code
     * Verbale.attachImage("plan", drawing);
     * }</pre>
     */
    public static void attachImage(String name, RenderedImage image) {
        try {
            recorder().attach(name, new Image(image), MediaType.PNG);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
        }
    }

    /**
     * Attaches something that comes later, perhaps after the test has ended.
     *
     * <pre>{@code
     * PendingAttachment video = Verbale.attachLater("session");
     * camera.whenDone(file -> video.complete(file));
     * }</pre>
     */
    public static PendingAttachment attachLater(String name) {
        try {
            return recorder().attachLater(name);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
            return PendingAttachment.NONE;
        }
    }

    /**
     * Asks {@code source} for evidence whenever a step or test fails, as long as the scope that is current on this thread
     * lasts: the test, or, in the set-up of a class, the class. Registering the same source again changes nothing.
     *
     * <pre>{@code
     * Verbale.register(serverLog); // where a step of this test fails from here on, it is asked
     * }</pre>
     *
     * @return ends it earlier; nobody needs to
     */
    public static Registration register(EvidenceSource source) {
        try {
            return recorder().register(source);
        } catch (StackOverflowError | OutOfMemoryError | LinkageError | InternalError lost) {
            LostCalls.count++;
            return Registration.NONE;
        }
    }

    /** A check hides what its action may throw; what it threw is thrown all the same. */
    @SuppressWarnings("unchecked") // erased: the cast does nothing
    private static <X extends Throwable> RuntimeException sneaky(Throwable failure) throws X {
        throw (X) failure;
    }

    private static Recorder recorder() {
        return Recorder.current();
    }

    private record Text(@Nullable String text) implements ContentSource {
        @Override
        public InputStream open() {
            return new TextStream(String.valueOf(text));
        }
    }

    private record Table(List<String> header, List<? extends List<?>> rows) implements ContentSource {
        @Override
        public InputStream open() {
            return new TextStream(CsvText.of(header, rows));
        }
    }

    private record Image(RenderedImage image) implements ContentSource {
        @Override
        public @Nullable InputStream open() throws IOException {
            return PngImage.of(image);
        }
    }

    /** All that is handed to it belongs to the step that is open where it is handed over. */
    private record Carrying(Executor executor) implements Executor {
        @Override
        public void execute(Runnable work) {
            executor.execute(carry(work));
        }
    }

    /** Runs where it is asked to: there is no recorder to carry it. */
    private record UncarriedTask<T extends @Nullable Object>(Callable<T> work) implements CarriedTask<T> {
        @Override
        public T call() throws Exception {
            return work.call();
        }

        @Override
        public T get() {
            return CarriedTask.unchecked(work);
        }
    }

    /** Remembers what the work of a step gave. */
    private static final class Done<T extends @Nullable Object, X extends Throwable> implements ThrowingRunnable<X> {
        private final @Nullable ThrowingSupplier<T, X> work;

        @SuppressWarnings("NullAway") // null where there is no work, or it threw
        T value = null;

        Done(@Nullable ThrowingSupplier<T, X> work) {
            this.work = work;
        }

        @Override
        public void run() throws X {
            if (work != null) value = work.get();
        }
    }
}
