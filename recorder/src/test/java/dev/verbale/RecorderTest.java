package dev.verbale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import dev.verbale.event.Failure;
import dev.verbale.event.Outcome;
import dev.verbale.event.PaperKept;
import dev.verbale.event.StepKind;
import dev.verbale.evidence.Evidence;
import dev.verbale.evidence.EvidenceSource;
import dev.verbale.recorder.Ending;
import dev.verbale.recorder.Identity;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.RecorderOptions;
import dev.verbale.recorder.Scope;
import dev.verbale.recorder.Step;
import dev.verbale.results.Entry;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is recorded is what is read. */
class RecorderTest {

    @TempDir
    Path root;

    private Recorder recorder;

    @BeforeEach
    void open_a_recorder() {
        recorder = Recorder.open(RecorderOptions.defaults().withRoot(root).withClosingLine(false));
    }

    @Test
    void a_test_has_its_steps_lines_and_data_in_order() throws Exception {
        Scope container = recorder.startContainer(recorder.run(), identity("RotaTest", null));
        Scope test = recorder.startTest(container, identity("RotaTest", "swaps"));
        Step setUp = recorder.startStep(StepKind.SET_UP, "open the rota");
        setUp.passed();
        recorder.data("plot", 12);
        Step outer = recorder.startStep("Swap");
        Step inner = recorder.startStep("Choose");
        recorder.note("in the inner step");
        inner.passed();
        recorder.note("in the outer step");
        outer.passed();
        recorder.note("in the test");
        recorder.endTest(test, Ending.passed());
        recorder.endContainer(container, Ending.passed(), 0);

        TestResult read = onlyTest();

        assertThat(read.key()).isEqualTo("sample.RotaTest.swaps()");
        assertThat(read.path()).containsExactly("RotaTest");
        assertThat(read.outcome()).isEqualTo(Outcome.PASSED);
        assertThat(read.tags()).containsExactly("api", "smoke");
        assertThat(outline(read.entries()))
                .containsExactly(
                        "set-up open the rota passed",
                        "plot=12",
                        "action Swap passed",
                        "  action Choose passed",
                        "    in the inner step",
                        "  in the outer step",
                        "in the test");
    }

    @Test
    void a_failure_is_on_the_innermost_step_and_evidence_is_taken_once_there() throws Exception {
        List<String> asked = new ArrayList<>();
        var failure = new IllegalStateException("the gate is locked");
        Scope test = recorder.startTest(recorder.run(), identity("GateTest", "opens"));
        recorder.announce(source("camera", evidence -> {
            asked.add("camera");
            evidence.paper("screenshot", PaperKept.SCREENSHOT, new byte[] {1, 2, 3}, "image/png");
        }));
        Step outer = recorder.startStep("Visit");
        Step inner = recorder.startStep("Open the gate");
        inner.failed(failure);
        outer.failed(failure);
        recorder.takeEvidence(new RuntimeException("wrapped by the framework", failure));
        recorder.endTest(test, Ending.threw(failure));

        TestResult read = onlyTest();

        assertThat(asked).containsExactly("camera");
        assertThat(read.outcome()).isEqualTo(Outcome.ERRORED);
        assertThat(outline(read.entries()))
                .containsExactly(
                        "action Visit errored",
                        "  action Open the gate errored: the gate is locked",
                        "    screenshot image/png tests/GateTest/opens/01-screenshot.png");
        Failure told = read.failure();
        assertThat(told).isNotNull();
        assertThat(told.stack()).contains("RecorderTest.java");
    }

    @Test
    void a_source_that_throws_is_noted_and_the_others_are_still_asked() throws Exception {
        Scope test = recorder.startTest(recorder.run(), identity("GateTest", "opens"));
        recorder.announce(source("camera", evidence -> {
            throw new IOException("no film");
        }));
        recorder.announce(source("gardener", evidence -> evidence.note("saw it happen")));
        recorder.endTest(test, Ending.threw(new AssertionError("shut")));

        TestResult read = onlyTest();

        assertThat(read.outcome()).isEqualTo(Outcome.FAILED);
        assertThat(outline(read.entries()))
                .containsExactly("No evidence from camera: java.io.IOException: no film", "saw it happen");
    }

    @Test
    void evidence_of_a_class_serves_its_tests_and_no_others() throws Exception {
        Scope one = recorder.startContainer(recorder.run(), identity("OneTest", null));
        recorder.announce(source("of the class", evidence -> evidence.note("asked")));
        Scope inOne = recorder.startTest(one, identity("OneTest", "fails"));
        recorder.endTest(inOne, Ending.threw(new AssertionError()));
        recorder.endContainer(one, Ending.passed(), 0);
        Scope other = recorder.startTest(recorder.run(), identity("OtherTest", "fails"));
        recorder.endTest(other, Ending.threw(new AssertionError()));

        List<TestResult> tests = read().tests();

        assertThat(outline(tests.get(0).entries())).containsExactly("asked");
        assertThat(tests.get(1).entries()).isEmpty();
    }

    @Test
    void papers_are_numbered_and_named_for_a_person() throws Exception {
        Path file = Files.writeString(root.resolve("harvest.csv"), "plot,kilos\n");
        Scope test = recorder.startTest(recorder.run(), identity("Paper Test", "keeps"));
        recorder.attach("rota before: swap", "Mon,Ada\n".getBytes(StandardCharsets.UTF_8), "text/csv");
        recorder.attach(
                "rota.json", new ByteArrayInputStream("{}".getBytes(StandardCharsets.UTF_8)), "application/json");
        recorder.attach(file);
        recorder.attach("../../evil.sh", new byte[1], "application/x-sh");
        recorder.attach(root.resolve("nowhere.png"));
        recorder.endTest(test, Ending.passed());

        Run run = read();

        assertThat(outline(run.tests().get(0).entries()))
                .containsExactly(
                        "rota before: swap text/csv tests/Paper-Test/keeps/01-rota-before-swap.csv",
                        "rota.json application/json tests/Paper-Test/keeps/02-rota.json",
                        "harvest.csv text/csv tests/Paper-Test/keeps/03-harvest.csv",
                        "../../evil.sh application/x-sh tests/Paper-Test/keeps/04-evil.sh");
        assertThat(run.folder().resolve("tests/Paper-Test/keeps/01-rota-before-swap.csv"))
                .hasContent("Mon,Ada\n");
        assertThat(run.problems())
                .singleElement()
                .extracting(Problem::what)
                .asString()
                .contains("nowhere.png");
    }

    @Test
    void a_stream_that_breaks_costs_its_paper_and_leaves_no_half_of_it() throws Exception {
        Scope test = recorder.startTest(recorder.run(), identity("PaperTest", "breaks"));
        recorder.attach(
                "film",
                new InputStream() {
                    private int given;

                    @Override
                    public int read() throws IOException {
                        if (given++ < 20_000) return 'x';
                        throw new IOException("the tape is torn");
                    }
                },
                "video/webm");
        recorder.endTest(test, Ending.passed());

        Run run = read();

        assertThat(run.tests().get(0).entries()).isEmpty();
        assertThat(run.problems())
                .singleElement()
                .extracting(Problem::what)
                .asString()
                .contains("film", "torn");
        assertThat(run.folder().resolve("tests/PaperTest/breaks")).isEmptyDirectory();
    }

    @Test
    void namesakes_have_folders_of_their_own() throws Exception {
        for (int i = 0; i < 3; i++) {
            Scope test = recorder.startTest(recorder.run(), identity("AgainTest", "again"));
            recorder.attach("a", new byte[1], "text/plain");
            recorder.endTest(test, Ending.passed());
        }

        Run run = read();

        assertThat(run.folder().resolve("tests/AgainTest")).isDirectoryContaining("glob:**/again-3");
        assertThat(run.tests())
                .extracting(TestResult::address)
                .containsExactly(
                        "sample.AgainTest.again()", "sample.AgainTest.again()~2", "sample.AgainTest.again()~3");
    }

    @Test
    void a_line_of_no_test_is_kept_with_the_run_and_its_thread() throws Exception {
        Scope test = recorder.startTest(recorder.run(), identity("PoolTest", "runs"));
        var stray = new Thread(() -> recorder.note("nobody carried me"), "irrigation");
        stray.start();
        stray.join();
        var carried = new Thread(() -> {
            Recorder.Stay stay = recorder.enter(test);
            recorder.note("I was brought along");
            stay.close();
        });
        carried.start();
        carried.join();
        recorder.endTest(test, Ending.passed());

        Run run = read();

        assertThat(run.entries()).singleElement().satisfies(entry -> {
            var note = (Entry.NoteEntry) entry;
            assertThat(note.text()).isEqualTo("nobody carried me");
            assertThat(note.thread()).isEqualTo("irrigation");
        });
        assertThat(outline(run.tests().get(0).entries())).containsExactly("I was brought along");
    }

    @Test
    void ending_twice_or_out_of_order_harms_nobody_and_is_said() throws Exception {
        Scope test = recorder.startTest(recorder.run(), identity("OddTest", "ends"));
        Step outer = recorder.startStep("outer");
        Step inner = recorder.startStep("inner");
        outer.passed();
        recorder.note("after the outer");
        inner.passed();
        inner.passed();
        recorder.note("after both");
        recorder.endTest(test, Ending.passed());
        recorder.endTest(test, Ending.passed());

        Run run = read();

        assertThat(outline(run.tests().get(0).entries()))
                .containsExactly("action outer passed", "  action inner passed", "after the outer", "after both");
        assertThat(run.problems())
                .extracting(Problem::what)
                .containsExactly(
                        "A step was ended a second time on thread main",
                        "A test was ended a second time on thread main");
    }

    @Test
    void eight_threads_with_tests_of_their_own_never_mix() throws Exception {
        ExecutorService pool = Executors.newFixedThreadPool(8);
        for (int i = 0; i < 200; i++) {
            String method = "test" + i;
            pool.submit(() -> {
                Scope test = recorder.startTest(recorder.run(), identity("MixTest", method));
                for (int step = 0; step < 5; step++) {
                    Step one = recorder.startStep(method + " step");
                    recorder.note(method);
                    one.passed();
                }
                recorder.endTest(test, Ending.passed());
            });
        }
        pool.shutdown();
        assertThat(pool.awaitTermination(1, TimeUnit.MINUTES)).isTrue();

        List<TestResult> tests = read().tests();

        assertThat(tests).hasSize(200).allSatisfy(test -> assertThat(outline(test.entries()))
                .hasSize(10)
                .allMatch(line -> line.strip().equals(test.methodName())
                        || line.equals("action " + test.methodName() + " step passed")));
    }

    @Test
    void a_test_that_is_still_open_reads_as_unfinished_with_its_last_step() throws Exception {
        recorder.startTest(recorder.run(), identity("CutTest", "hangs"));
        recorder.startStep("Wait for rain");
        recorder.note("clouds");

        TestResult read = onlyTest();

        assertThat(read.outcome()).isEqualTo(Outcome.UNFINISHED);
        assertThat(outline(read.entries())).containsExactly("action Wait for rain unfinished", "  clouds");
    }

    @Test
    void a_folder_that_cannot_be_made_switches_recording_off_and_nothing_else() throws Exception {
        Path file = Files.createFile(root.resolve("in-the-way"));

        Recorder off = Recorder.open(RecorderOptions.defaults().withRoot(file));

        assertThat(off.isRecording()).isFalse();
        assertThatCode(() -> {
                    Scope test = off.startTest(off.run(), identity("OffTest", "goes on"));
                    off.startStep("a step").passed();
                    off.enter(test).close();
                    off.attach("a", new byte[0], "text/plain");
                    off.endTest(test, Ending.passed());
                    off.sessionEnded();
                })
                .doesNotThrowAnyException();
    }

    @Test
    void a_vanished_folder_costs_papers_and_never_the_test() throws Exception {
        Scope test = recorder.startTest(recorder.run(), identity("GoneTest", "goes on"));
        Path folder = read().folder();
        Path journal = folder.resolve("journals/worker-1.jsonl");
        Files.delete(folder.resolve("run.json"));
        Files.writeString(folder.resolve("tests"), "a file where the folder should be");

        assertThatCode(() -> recorder.attach("a", new byte[1], "text/plain")).doesNotThrowAnyException();
        recorder.endTest(test, Ending.passed());

        assertThat(Files.readString(journal)).contains("\"problem\"").contains("attaching a");
    }

    private Identity identity(String className, String method) {
        String type = "sample." + className;
        return method == null
                ? new Identity(type, className, type, null, List.of())
                : new Identity(type + "." + method + "()", method, type, method, List.of("smoke", "api"));
    }

    private Run read() throws IOException {
        return RunReader.read(root);
    }

    private TestResult onlyTest() throws IOException {
        List<TestResult> tests = read().tests();
        assertThat(tests).hasSize(1);
        return tests.get(0);
    }

    private interface Taking {
        void take(Evidence evidence) throws Exception;
    }

    private static EvidenceSource source(String name, Taking taking) {
        return new EvidenceSource() {
            @Override
            public String name() {
                return name;
            }

            @Override
            public void take(Evidence evidence) throws Exception {
                taking.take(evidence);
            }
        };
    }

    private static List<String> outline(List<Entry> entries) {
        List<String> lines = new ArrayList<>();
        outline(entries, "", lines);
        return lines;
    }

    private static void outline(List<Entry> entries, String indent, List<String> lines) {
        for (Entry entry : entries) {
            if (entry instanceof Entry.StepEntry step) {
                String said =
                        step.failure() == null ? "" : ": " + step.failure().message();
                lines.add(indent + step.kind().word() + " " + step.name() + " "
                        + step.outcome().word() + said);
                outline(step.entries(), indent + "  ", lines);
            } else if (entry instanceof Entry.NoteEntry note) lines.add(indent + note.text());
            else if (entry instanceof Entry.DataEntry data) lines.add(indent + data.name() + "=" + data.value());
            else if (entry instanceof Entry.PaperEntry paper)
                lines.add(indent + paper.name() + " " + paper.mediaType() + " " + paper.nameInJournal());
        }
    }
}
