package dev.verbale.hostile;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.MediaType;
import dev.verbale.Recorder;
import dev.verbale.Verbale;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.spi.Adapter;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.Setting;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.testing.Jvm;
import java.io.File;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** The first call of a JVM comes where there is nothing that it needs: it throws nothing, and later ones record. */
class FirstCallTest {

    @TempDir
    Path root;

    /** Kinds of first calls. */
    enum Kind {
        LOG {
            @Override
            void call() {
                Verbale.log("early");
            }
        },
        STEP {
            @Override
            void call() {
                Verbale.step("early", () -> {});
            }
        },
        CHECK {
            @Override
            void call() {
                Verbale.check("early", () -> {});
            }
        },
        ATTACHMENT {
            @Override
            void call() {
                Verbale.attach("early", CONTENT, MediaType.TEXT);
            }
        },
        SECRET {
            @Override
            void call() {
                Verbale.secret("hunter2");
            }
        },
        TEST {
            @Override
            void call() {
                AdapterRecorder recorder = AdapterRecorder.current();
                recorder.startTest(
                        recorder.run(), TestDescriptor.of("early", "early").build());
            }
        };

        private static final byte[] CONTENT = "early".getBytes(StandardCharsets.UTF_8);

        abstract void call();
    }

    @ParameterizedTest
    @EnumSource(Kind.class)
    void with_no_memory_it_is_tried_again_and_the_run_says_so(Kind kind) throws Exception {
        Child jvm = Child.run(root, Map.of(), List.of("-Xmx48m"), WithoutMemory.class, kind.name());

        assertThat(jvm.code()).as(jvm.output()).isZero();
        Run run = RunReader.read(root);
        assertThat(lines(run)).contains("late");
        assertThat(run.workers())
                .singleElement()
                .satisfies(worker -> assertThat(worker.missing()).isPositive());
        assertThat(run.problems())
                .anyMatch(problem -> problem.what().contains("the memory, was at its end")
                        || problem.what().contains("recording could not begin at the first call"));
    }

    /** Runs {@code main} with an adapter that the recorder asks while it opens. */
    private Jvm runWith(Class<? extends Adapter> adapter, Class<?> main) throws Exception {
        Path services = Files.createDirectories(root.resolve("more/META-INF/services"));
        Files.writeString(services.resolve(Adapter.class.getName()), adapter.getName());
        String classPath = root.resolve("more") + File.pathSeparator + Jvm.classPath();
        return Jvm.run(Map.of(), root, Jvm.command(List.of("-Dverbale.root=" + root.resolve("runs")), classPath, main));
    }

    @Test
    @ByNight
    void a_machine_without_a_processor_for_it_loses_no_test_of_another_thread() throws Exception {
        Jvm jvm = runWith(SlowAdapter.class, AtOnce.class);

        assertThat(jvm.code()).as(jvm.output()).isZero();
        Run run = RunReader.read(root.resolve("runs"));
        assertThat(run.tests()).hasSize(4);
        assertThat(run.workers())
                .singleElement()
                .satisfies(worker -> assertThat(worker.missing()).isZero());
    }

    @Test
    void who_records_while_it_holds_what_opening_needs_goes_on_and_what_is_missing_is_counted() throws Exception {
        Jvm jvm = runWith(WaitingAdapter.class, Holding.class);

        assertThat(jvm.code()).as(jvm.output()).isZero();
        Run run = RunReader.read(root.resolve("runs"));
        assertThat(run.tests()).extracting(TestResult::name).containsExactly("first");
        assertThat(run.workers())
                .singleElement()
                .satisfies(worker -> assertThat(worker.missing()).isPositive());
    }

    /** As on a machine that gives the opening thread no processor for longer than a thread waits for one that waits. */
    public static final class SlowAdapter implements Adapter {
        @Override
        public List<Setting> settings() {
            long until = System.nanoTime() + 7_000_000_000L;
            while (System.nanoTime() < until) Thread.onSpinWait();
            return List.of();
        }
    }

    static final class AtOnce {
        public static void main(String[] none) throws Exception {
            List<Thread> threads = new ArrayList<>();
            for (int i = 0; i < 4; i++) threads.add(new Thread(() -> test("test of " + Thread.currentThread())));
            for (Thread thread : threads) thread.start();
            for (Thread thread : threads) thread.join();
        }
    }

    private static void test(String name) {
        AdapterRecorder recorder = AdapterRecorder.current();
        recorder.endTest(
                recorder.startTest(recorder.run(), TestDescriptor.of(name, name).build()), TestEnd.passed());
    }

    /** As a logger does whose lock somebody holds. */
    public static final class WaitingAdapter implements Adapter {
        static final CountDownLatch ASKED = new CountDownLatch(1);
        static final Object LOCK = new Object();

        @Override
        public List<Setting> settings() {
            ASKED.countDown();
            synchronized (LOCK) {
                return List.of();
            }
        }
    }

    static final class Holding {
        public static void main(String[] none) throws Exception {
            var opening = new Thread(() -> test("first"));
            synchronized (WaitingAdapter.LOCK) {
                opening.start();
                WaitingAdapter.ASKED.await();
                test("second");
            }
            opening.join();
        }
    }

    @Test
    void with_no_folder_it_is_tried_again_and_said_once() throws Exception {
        Path taken = Files.writeString(root.resolve("taken"), "no folder");

        Child jvm = Child.run(
                root, Map.of("TAKEN", taken.toString()), List.of("-Dverbale.root=" + taken), WithoutFolder.class);

        assertThat(jvm.code()).as(jvm.output()).isZero();
        assertThat(jvm.output().split("Verbale records nothing", -1)).hasSize(2);
        Run run = RunReader.read(taken);
        assertThat(lines(run)).contains("late");
        assertThat(run.problems()).anyMatch(problem -> problem.what().contains("could not begin"));
    }

    @Test
    void with_no_file_to_open_nothing_is_thrown_and_later_calls_record_or_it_was_said() throws Exception {
        Child jvm = Child.run(
                List.of("bash", "-c", "ulimit -n 200; exec \"$@\"", "limited"),
                root,
                Map.of(),
                List.of(),
                WithoutFiles.class);

        assertThat(jvm.code()).as(jvm.output()).isZero();
        boolean isRecorded = Files.exists(root) && jvm.output().contains("recorded in the end");
        if (isRecorded) assertThat(lines(RunReader.read(root))).contains("late");
        else assertThat(jvm.output()).contains("Verbale records nothing");
    }

    @Test
    void on_an_interrupted_thread_it_records_and_the_thread_stays_interrupted() throws Exception {
        Child jvm = Child.run(root, Map.of(), List.of(), Interrupted.class);

        assertThat(jvm.code()).as(jvm.output()).isZero();
        assertThat(lines(RunReader.read(root))).contains("interrupted");
    }

    @Test
    void while_the_jvm_ends_nothing_is_thrown_and_nobody_waits() throws Exception {
        Child jvm = Child.run(root, Map.of(), List.of(), Ending.class);

        assertThat(jvm.code()).as(jvm.output()).isZero();
        assertThat(jvm.output()).contains("the hook is done").doesNotContain("Exception in thread");
    }

    private static List<String> lines(Run run) {
        return Stream.concat(run.entries().stream(), run.tests().stream().flatMap(test -> test.entries().stream()))
                .filter(Entry.LogEntry.class::isInstance)
                .map(entry -> ((Entry.LogEntry) entry).text())
                .toList();
    }

    private static void logUntilRecorded(String text) {
        for (int i = 0; i < 2_000; i++) {
            Verbale.log(text);
            if (Recorder.currentIfOpen().filter(Recorder::isRecording).isPresent()) break;
            LockSupport.parkNanos(10_000_000);
        }
        Verbale.log(text);
    }

    /** Fills its memory, calls, and makes room again. */
    static final class WithoutMemory {
        private static List<byte[]> full = new ArrayList<>();

        public static void main(String[] arguments) throws Exception {
            Kind kind = Kind.valueOf(arguments[0]);
            List<Class<?>> loaded =
                    List.of(Verbale.class, AdapterRecorder.class, TestDescriptor.class); // by whoever calls
            AdapterRecorder.none().log("as the class of a caller does, it is made before");
            Class.forName(Verbale.class.getName());
            byte[][] forTheCaller = {new byte[1 << 18]};
            for (int size = 1 << 20; size > 1 << 10; size /= 2) fill(size);
            forTheCaller[0] = null;
            boolean threw = false;
            try {
                for (int i = 0; i < 20; i++) kind.call();
            } catch (OutOfMemoryError | RuntimeException any) {
                full = List.of();
                any.printStackTrace();
                threw = !loaded.isEmpty();
            }
            full = List.of();
            logUntilRecorded("late");
            System.exit(threw ? 3 : 0);
        }

        private static void fill(int size) {
            try {
                while (true) full.add(new byte[size]);
            } catch (OutOfMemoryError enough) {
                // smaller ones may still fit
            }
        }
    }

    /** Opens all the files that it may. */
    static final class WithoutFiles {
        public static void main(String[] arguments) throws Exception {
            Class.forName(Verbale.class.getName());
            AdapterRecorder.none().log("made before");
            List<Kind> kinds = List.of(Kind.LOG, Kind.CHECK, Kind.SECRET);
            Runnable linked = () -> {};
            linked.run();
            List<AutoCloseable> open = new ArrayList<>();
            try {
                while (true) open.add(Files.newInputStream(Path.of("/dev/null")));
            } catch (java.io.IOException enough) {
                for (Kind kind : kinds) kind.call();
            }
            for (AutoCloseable one : open) one.close();
            for (int i = 0; i < 20; i++) {
                Verbale.log("late");
                LockSupport.parkNanos(20_000_000);
            }
            if (Recorder.currentIfOpen().filter(Recorder::isRecording).isPresent())
                System.out.println("recorded in the end");
        }
    }

    /** Something is where the folder of runs is to be, and goes. */
    static final class WithoutFolder {
        public static void main(String[] arguments) throws Exception {
            Verbale.log("early");
            Files.delete(Path.of(System.getenv("TAKEN")));
            logUntilRecorded("late");
        }
    }

    /** Somebody interrupted its only thread. */
    static final class Interrupted {
        public static void main(String[] arguments) {
            Thread.currentThread().interrupt();
            Verbale.log("interrupted");
            System.exit(Thread.currentThread().isInterrupted() ? 0 : 1);
        }
    }

    /** Calls while it ends. */
    static final class Ending {
        public static void main(String[] arguments) {
            Runtime.getRuntime().addShutdownHook(new Thread(() -> {
                for (Kind kind : Arrays.asList(Kind.values())) kind.call();
                System.out.println("the hook is done");
            }));
        }
    }
}
