package dev.verbale.hostile;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Evidence;
import dev.verbale.EvidenceSource;
import dev.verbale.MediaType;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.Verbale;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.File;
import java.net.MalformedURLException;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is loaded when it is needed first, and not before: where a stack is full, or a class loader was closed. */
class LateClassesTest {

    @TempDir
    Path root;

    @Test
    void what_comes_first_where_the_stack_is_full_is_recorded_where_it_is_not() throws Exception {
        Child jvm = Child.run(
                root,
                Map.of(),
                List.of("-Xss512k", "-Dverbale.night=" + Boolean.getBoolean("verbale.night")),
                FullStacks.class,
                root.toString());

        assertThat(jvm.code()).as(jvm.output()).isZero();
        for (String kind : FullStacks.kinds()) {
            Run run = RunReader.read(root.resolve(kind));
            assertThat(run.tests())
                    .as(kind)
                    .anySatisfy(test -> assertThat(test.name()).isEqualTo("after it"));
            assertThat(journal(run)).as(kind).contains("shallow " + kind);
            assertThat(run.problems())
                    .as(kind)
                    .noneMatch(problem -> problem.what().contains("NoClassDefFound"));
        }
    }

    private static String journal(Run run) throws Exception {
        return Files.readString(run.folder().resolve("journals/worker-1.jsonl"));
    }

    @Test
    void a_run_ends_whose_class_loader_was_closed_before() throws Exception {
        Child jvm = Child.run(root, Map.of(), List.of(), ClosedLoader.class);

        assertThat(jvm.code()).as(jvm.output()).isZero();
        assertThat(jvm.output()).contains("Verbale: 1 test: 1 passed");
        Run run = RunReader.read(root);
        assertThat(run.workers()).singleElement().satisfies(worker -> {
            assertThat(worker.ended()).isTrue();
            assertThat(worker.missing()).isZero();
        });
    }

    private static URLClassLoader ownLoader() throws MalformedURLException {
        List<URL> classPath = new ArrayList<>();
        for (String entry : System.getProperty("java.class.path").split(File.pathSeparator))
            classPath.add(Path.of(entry).toUri().toURL());
        return new URLClassLoader(classPath.toArray(URL[]::new), ClassLoader.getPlatformClassLoader());
    }

    /** Each kind of call in classes of its own, which nothing has loaded before. */
    public static final class FullStacks {

        /** So many frames from a full stack on each call is tried: at first it cannot, then it has what it needs. */
        private static final int FRAMES = Boolean.getBoolean("verbale.night") ? 2_000 : 60;

        /** Looked at when there is stack again. */
        private static final List<InternalError> UNLINKED = new ArrayList<>();

        private static final EvidenceSource GARDENER = new EvidenceSource() {
            @Override
            public String name() {
                return "gardener";
            }

            @Override
            public void capture(Evidence evidence) {
                evidence.log("basil");
            }
        };

        static final Map<String, Consumer<String>> CALLS = new LinkedHashMap<>();

        static {
            CALLS.put("log", Verbale::log);
            CALLS.put("step", name -> Verbale.step(name, () -> {}));
            CALLS.put("failing-step", FullStacks::failingStep);
            CALLS.put("budget", name -> Verbale.step(name, Duration.ofHours(1), () -> {}));
            CALLS.put("check", name -> Verbale.check(name, () -> {}));
            CALLS.put("data", name -> Verbale.data(name, 12));
            CALLS.put("fact", name -> Verbale.fact(name, 12));
            CALLS.put("about", name -> Verbale.about(name));
            CALLS.put("link", Verbale::link);
            CALLS.put("attachment", name -> Verbale.attach(name, "basil", MediaType.TEXT));
            CALLS.put("pending", name -> Verbale.attachLater(name));
            CALLS.put(
                    "exchange",
                    name -> Verbale.exchange("GET", "http://orto.example/" + name)
                            .status(200)
                            .ended());
            CALLS.put("failing-test", FullStacks::failingTest);
            CALLS.put("begun", FullStacks::begun);
            CALLS.put("table", name -> Verbale.attachTable(name, List.of("bed"), List.of(List.of(name))));
            CALLS.put(
                    "carried",
                    name -> Verbale.carry((Runnable) () -> Verbale.log(name)).run());
            CALLS.put(
                    "carried-executor",
                    name -> Verbale.carry((Executor) Runnable::run).execute(() -> Verbale.log(name)));
            CALLS.put("evidence", FullStacks::evidence);
            CALLS.put("failing-check", FullStacks::failingCheck);
        }

        static List<String> kinds() {
            return ByDay.everyThird(List.copyOf(CALLS.keySet())).toList();
        }

        /** The root of the runs. */
        public static void main(String[] arguments) throws Exception {
            for (String kind : kinds()) {
                System.setProperty("verbale.root", Path.of(arguments[0], kind).toString());
                try (URLClassLoader loader = ownLoader()) {
                    Class<?> own = Class.forName(FullStacks.class.getName(), true, loader);
                    own.getDeclaredMethod("one", String.class).invoke(null, kind);
                }
            }
        }

        public static void one(String kind) throws InterruptedException {
            AdapterRecorder recorder = AdapterRecorder.current();
            Consumer<String> call = CALLS.get(kind);
            Scope test = recorder.startTest(recorder.run(), descriptor("before it"));
            var deep = new Thread(Verbale.carry((Runnable) () -> fromTheDeepest(call, new int[] {FRAMES})), "deep");
            deep.start();
            deep.join();
            for (InternalError one : UNLINKED) if (!isOfALambdaInHere(one)) throw new IllegalStateException(kind, one);
            recorder.endTest(test, TestEnd.passed());
            Scope after = recorder.startTest(recorder.run(), descriptor("after it"));
            call.accept("shallow " + kind);
            recorder.endTest(after, TestEnd.passed());
        }

        private static TestDescriptor descriptor(String name) {
            return TestDescriptor.of("sample#" + name, name).build();
        }

        private static void fromTheDeepest(Consumer<String> call, int[] left) {
            try {
                fromTheDeepest(call, left);
            } catch (StackOverflowError full) {
                // this frame is the deepest that there is, and those around it come after it
            }
            if (left[0] == 0) return;
            try {
                call.accept("deep");
                left[0]--;
            } catch (StackOverflowError noRoomForTheCallItself) {
                // the next frame has more
            } catch (InternalError unlinked) {
                UNLINKED.add(unlinked);
            }
        }

        /** The JVM throws that where the stack ends while it links a lambda. */
        private static boolean isOfALambdaInHere(InternalError unlinked) {
            return Stream.of(unlinked.getStackTrace())
                    .map(StackTraceElement::getClassName)
                    .filter(name -> name.startsWith("dev.verbale."))
                    .findFirst()
                    .filter(name -> name.startsWith(LateClassesTest.class.getName()))
                    .isPresent();
        }

        /** Without frames: a thousand of them in each line would be most of what is written. */
        private static final class Wilted extends RuntimeException {
            private static final long serialVersionUID = 1;

            Wilted(String message) {
                super(message, null, false, false);
            }
        }

        private static void failingStep(String name) {
            thrown(() -> Verbale.step(name, () -> {
                throw new Wilted(name);
            }));
        }

        /** As the suite would see it. */
        private static void thrown(Runnable call) {
            try {
                call.run();
            } catch (Wilted wanted) {
                // it passes through
            }
        }

        private static void begun(String name) {
            try (Step step = Verbale.begin(name)) {
                step.passed();
            }
        }

        private static void evidence(String name) {
            Verbale.register(GARDENER);
            failingStep(name);
        }

        private static void failingCheck(String name) {
            thrown(() -> Verbale.check(name, () -> {
                throw new Wilted(name);
            }));
        }

        private static void failingTest(String name) {
            AdapterRecorder recorder = AdapterRecorder.current();
            Scope inner = recorder.startTest(recorder.currentScope(), descriptor(name));
            recorder.endTest(inner, TestEnd.threw(new Wilted(name)));
        }
    }

    /** As where a build runs tests in a class loader of its own, and closes it before its JVM ends. */
    public static final class ClosedLoader {
        public static void main(String[] arguments) throws Exception {
            try (URLClassLoader loader = ownLoader()) {
                Class<?> own = Class.forName(ClosedLoader.class.getName(), true, loader);
                own.getDeclaredMethod("oneTest").invoke(null);
            }
        }

        public static void oneTest() {
            AdapterRecorder recorder = AdapterRecorder.current();
            Scope test = recorder.startTest(
                    recorder.run(), TestDescriptor.of("k", "sows").build());
            recorder.endTest(test, TestEnd.passed());
        }
    }
}
