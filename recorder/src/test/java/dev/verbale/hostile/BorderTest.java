package dev.verbale.hostile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.Verbale;
import dev.verbale.event.Failure;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.results.summary.Headline;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintStream;
import java.net.URL;
import java.net.URLClassLoader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CountDownLatch;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a suite, a disk and an operating system may do to the recorder, and what it does about it. */
class BorderTest {

    /** Classes whose initialization needs another's. */
    private static final List<String> FIRST = List.of(
            "dev.verbale.Recorder",
            "dev.verbale.PendingAttachment",
            "dev.verbale.Exchange",
            "dev.verbale.spi.NoRecorder",
            "dev.verbale.engine.Recorders");

    @TempDir
    Path root;

    private AdapterRecorder recorder;

    @BeforeEach
    void open_a_recorder() {
        recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withSummaryLine(false).withAdoptOrphans(false));
    }

    @Test
    void a_thread_that_somebody_stops_ends_and_leaves_the_recorder_usable() throws Exception {
        Scope test = start("stopped");
        Object stopping = new Object() {
            @Override
            public String toString() {
                throw new ThreadDeath();
            }
        };

        assertThatThrownBy(() -> recorder.log("{}", new Object[] {stopping})).isInstanceOf(ThreadDeath.class);
        recorder.log("goes on");
        recorder.endTest(test, TestEnd.passed());

        assertThat(texts(RunReader.read(root).tests().get(0).entries())).contains("goes on");
    }

    @Test
    void what_a_value_records_while_it_is_asked_for_its_text_is_recorded() throws Exception {
        Scope test = start("asks");
        Object logging = new Object() {
            @Override
            public String toString() {
                Step inside = recorder.startStep("asked");
                recorder.log("from toString");
                inside.passed();
                return "told";
            }
        };
        recorder.log("{}", new Object[] {logging});
        recorder.attach(
                "read",
                new InputStream() {
                    private boolean over;

                    @Override
                    public int read() {
                        if (over) return -1;
                        over = true;
                        recorder.log("from read");
                        return 'x';
                    }
                },
                MediaType.TEXT);
        recorder.endTest(test, TestEnd.passed());

        Run run = RunReader.read(root);

        assertThat(run.problems()).isEmpty();
        assertThat(texts(run.tests().get(0).entries()))
                .containsExactly("step asked", "from toString", "told", "from read", "attachment read");
    }

    @Test
    void a_value_that_records_itself_is_asked_a_few_times_and_not_for_ever() throws Exception {
        Scope test = start("asks");
        Object[] self = new Object[1];
        self[0] = new Object() {
            @Override
            public String toString() {
                recorder.log("{}", self);
                return "told";
            }
        };
        recorder.log("{}", self);
        recorder.endTest(test, TestEnd.passed());

        List<String> texts = texts(RunReader.read(root).tests().get(0).entries());
        assertThat(texts).hasSizeBetween(2, 20).last().isEqualTo("told");
        assertThat(texts.get(0)).startsWith("(IllegalStateException in toString of ");
    }

    @Test
    void a_folder_that_is_deleted_is_made_anew_and_says_what_is_gone() throws Exception {
        Scope container = recorder.startContainer(
                recorder.run(),
                TestDescriptor.of("sample.GateTest", "GateTest")
                        .className("sample.GateTest")
                        .build());
        Scope before = start(container, "before");
        recorder.attach("early", new byte[] {'x'}, MediaType.TEXT);
        recorder.endTest(before, TestEnd.passed());
        Scope during = start(container, "during");
        Step open = recorder.startStep("open");
        delete(RunReader.read(root).folder());

        waitForAnotherLook();
        recorder.log("after the broom");
        recorder.attach("late", new byte[] {'y'}, MediaType.TEXT);
        open.passed();
        recorder.endTest(during, TestEnd.passed());
        recorder.endContainer(container, TestEnd.passed(), 0);

        Run run = RunReader.read(root);
        assertThat(run.tests()).singleElement().satisfies(test -> {
            assertThat(test.name()).isEqualTo("during");
            assertThat(test.path()).containsExactly("GateTest");
            assertThat(texts(test.entries())).containsExactly("step open", "after the broom", "attachment late");
        });
        assertThat(run.incomplete().byKind().get("deleted")).isGreaterThanOrEqualTo(6);
        assertThat(run.problems())
                .anySatisfy(problem -> assertThat(problem.what())
                        .contains("The run's folder was deleted while it was recorded", "events until now are gone"));
        assertThat(Headline.of(run)).contains("The run is incomplete");
    }

    /** The look at the folder is at most every 0.2 seconds; the recorder's own clock is what it goes by. */
    private void waitForAnotherLook() {
        long from = recorder.now();
        while (recorder.now() - from < 250_000) Thread.onSpinWait();
    }

    @Test
    void a_failure_is_written_once_however_many_steps_and_wrappers_it_passes() throws Exception {
        Scope test = start("fails");
        var cause = new IllegalStateException("the gate is locked");
        Throwable failure = cause;
        for (int i = 0; i < 30; i++) {
            Step step = recorder.startStep("step " + i);
            failure = new RuntimeException("around " + i, failure);
            step.failed(failure);
            recorder.checked("gate", failure);
        }
        recorder.endTest(test, TestEnd.threw(failure));

        Path journal = RunReader.read(root).folder().resolve("journals/worker-1.jsonl");
        String text = Files.readString(journal);
        assertThat(text.split("the gate is locked", -1)).hasSizeLessThan(70); // in messages, and once with its frames
        assertThat(text.split("at dev.verbale.hostile.BorderTest.a_failure_is_written_once", -1))
                .as("each throwable's own frame once at the most: what many share is written once")
                .hasSizeBetween(2, 1 + 31);
        TestResult read = RunReader.read(root).tests().get(0);
        Failure written = read.failure();
        assertThat(written).isNotNull();
        assertThat(written.message()).isEqualTo("around 29");
        assertThat(written.stack()).contains("Caused by: java.lang.RuntimeException: around 28", "was recorded first");
    }

    @Test
    void a_message_of_megabytes_is_cut_in_the_journal_and_whole_in_a_attachment() throws Exception {
        Scope test = start("fails");
        recorder.endTest(test, TestEnd.threw(new IllegalStateException("m".repeat(3_000_000))));

        Run run = RunReader.read(root);

        Failure written = run.tests().get(0).failure();
        assertThat(written).isNotNull();
        assertThat(written.message()).hasSizeLessThan(10_000).contains("3000000 characters", "'failure message'");
        assertThat(written.stack()).hasSizeLessThan(50_000).contains("BorderTest.java");
        assertThat(run.folder().resolve("tests/GateTest/fails/01-failure-message.txt"))
                .hasSize(3_000_000);
    }

    @Test
    void a_hundred_thousand_causes_are_told_as_far_as_anybody_reads() throws Exception {
        Scope test = start("fails");
        Throwable failure = new IllegalStateException("first");
        for (int i = 0; i < 100_000; i++) failure = new RuntimeException("around", failure);
        recorder.endTest(test, TestEnd.threw(failure));

        Failure written = RunReader.read(root).tests().get(0).failure();
        assertThat(written).isNotNull();
        assertThat(written.stack()).hasSizeLessThan(300_000).endsWith("... (more is left out)\n");
    }

    @Test
    void threads_that_touch_the_recorder_first_never_wait_for_each_other() throws Exception {
        URL[] classPath = Stream.of(System.getProperty("java.class.path").split(File.pathSeparator))
                .map(BorderTest::url)
                .toArray(URL[]::new);
        for (int round = 0; round < 40; round++) {
            try (var loader = new URLClassLoader(classPath, ClassLoader.getPlatformClassLoader())) {
                var together = new CountDownLatch(FIRST.size());
                List<Thread> threads = new ArrayList<>();
                for (String first : FIRST) {
                    var thread = new Thread(() -> {
                        try {
                            together.countDown();
                            together.await();
                            Class.forName(first, true, loader);
                        } catch (ReflectiveOperationException | InterruptedException broken) {
                            throw new IllegalStateException(broken);
                        }
                    });
                    thread.setDaemon(true);
                    thread.start();
                    threads.add(thread);
                }
                for (Thread thread : threads) {
                    thread.join(20_000);
                    assertThat(thread.isAlive()).as("round " + round).isFalse();
                }
            }
        }
    }

    private static URL url(String entry) {
        try {
            return Path.of(entry).toUri().toURL();
        } catch (IOException odd) {
            throw new IllegalStateException(odd);
        }
    }

    @Test
    void a_jvm_that_knows_only_ascii_keeps_everything_under_plainer_names() throws Exception {
        Child jvm = Child.run(root, Map.of("LC_ALL", "C"), List.of(), Accents.class);

        assertThat(jvm.code()).as(jvm.output()).isZero();
        Run run = RunReader.read(root);
        assertThat(run.problems()).isEmpty();
        assertThat(run.tests()).singleElement().satisfies(test -> {
            assertThat(test.name()).isEqualTo("gießt die Möhren 菜");
            assertThat(test.entries()).hasSize(2).allSatisfy(entry -> {
                var attachment = (Entry.AttachmentEntry) entry;
                assertThat(attachment.name()).isEqualTo("Möhren 菜.txt");
                assertThat(attachment.file()).isNotNull().content().isEqualTo("orange");
            });
        });
    }

    static final class Accents {
        public static void main(String[] arguments) {
            AdapterRecorder recorder = AdapterRecorder.current();
            Scope test = recorder.startTest(
                    recorder.run(),
                    TestDescriptor.of("k", "gießt die Möhren 菜")
                            .className("sample.Gärten")
                            .methodName("x")
                            .build());
            for (int i = 0; i < 2; i++) Verbale.attach("Möhren 菜.txt", "orange", MediaType.TEXT);
            recorder.endTest(test, TestEnd.passed());
        }
    }

    @Test
    void a_text_of_fifty_megabytes_is_kept_where_a_copy_of_it_would_not_fit() throws Exception {
        Child jvm = Child.run(root, Map.of(), List.of("-Xmx96m"), Huge.class);

        assertThat(jvm.code()).as(jvm.output()).isZero();
        Run run = RunReader.read(root);
        assertThat(run.incomplete().missing()).isZero();
        TestResult test = run.tests().get(0);
        assertThat(test.entries().stream()
                        .filter(entry -> entry instanceof Entry.AttachmentEntry)
                        .map(entry -> ((Entry.AttachmentEntry) entry).stored().size()))
                .containsExactly(50_000_000L, 50_000_000L);
    }

    static final class Huge {
        public static void main(String[] arguments) {
            AdapterRecorder recorder = AdapterRecorder.current();
            Scope test = recorder.startTest(
                    recorder.run(), TestDescriptor.of("k", "huge").build());
            String text = "x".repeat(50_000_000);
            Verbale.log(text);
            Verbale.log("{}", text);
            recorder.endTest(test, TestEnd.passed());
        }
    }

    @Test
    void the_end_of_a_jvm_does_not_wait_for_an_output_that_nobody_reads() throws Exception {
        Child jvm = Child.run(root, Map.of(), List.of(), Blocked.class);

        assertThat(jvm.code()).as(jvm.output()).isZero();
        assertThat(RunReader.read(root).tests()).hasSize(1);
    }

    static final class Blocked {
        public static void main(String[] arguments) {
            AdapterRecorder recorder = AdapterRecorder.current();
            recorder.endTest(
                    recorder.startTest(
                            recorder.run(), TestDescriptor.of("k", "n").build()),
                    TestEnd.passed());
            System.setOut(new PrintStream(new OutputStream() {
                @Override
                public void write(int b) {
                    while (true) java.util.concurrent.locks.LockSupport.park();
                }
            }));
        }
    }

    @Test
    void the_line_at_the_end_counts_tests_and_says_what_is_missing() throws Exception {
        Child jvm = Child.run(root, Map.of(), List.of(), Retried.class);

        assertThat(jvm.output())
                .contains("Verbale: 2 tests: 1 passed, 1 failed. Recorded in ")
                .contains(". The run is incomplete: 1 attachment could not be recorded");
    }

    static final class Retried {
        public static void main(String[] arguments) {
            AdapterRecorder recorder = AdapterRecorder.current();
            for (int attempt = 0; attempt < 3; attempt++) {
                for (String key : List.of("shaky", "broken")) {
                    Scope test = recorder.startTest(
                            recorder.run(), TestDescriptor.of(key, key).build());
                    boolean passes = key.equals("shaky") && attempt == 2;
                    recorder.endTest(test, passes ? TestEnd.passed() : TestEnd.threw(new AssertionError("wind")));
                }
            }
            Verbale.attach(Path.of("nowhere"));
        }
    }

    private Scope start(String method) {
        return start(recorder.run(), method);
    }

    private Scope start(Scope in, String method) {
        return recorder.startTest(
                in,
                TestDescriptor.of("sample.GateTest." + method, method)
                        .className("sample.GateTest")
                        .methodName(method)
                        .build());
    }

    private static List<String> texts(List<Entry> entries) {
        List<String> texts = new ArrayList<>();
        for (Entry entry : entries) {
            if (entry instanceof Entry.LogEntry line) texts.add(line.text());
            if (entry instanceof Entry.AttachmentEntry attachment) texts.add("attachment " + attachment.name());
            if (entry instanceof Entry.StepEntry step) {
                texts.add("step " + step.name());
                texts.addAll(texts(step.entries()));
            }
        }
        return texts;
    }

    private static void delete(Path folder) throws IOException {
        try (Stream<Path> all = Files.walk(folder)) {
            for (Path one : all.sorted(Comparator.reverseOrder()).toList()) Files.delete(one);
        }
    }

    @Test
    void bytes_come_out_of_a_text_as_they_were_in_it() throws Exception {
        String text = "ä".repeat(9_000) + "\uD83C\uDF31".repeat(9_000);
        recorder.log(text);

        Path file = RunReader.read(root).folder().resolve("run/01-whole-text.txt");
        assertThat(Files.readString(file, StandardCharsets.UTF_8)).isEqualTo(text);
    }
}
