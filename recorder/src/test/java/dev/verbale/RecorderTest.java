package dev.verbale;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import dev.verbale.event.Failure;
import dev.verbale.results.Entry;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.Entered;
import dev.verbale.spi.LogLine;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is recorded is what is read. */
@Tag("newer-jdk")
class RecorderTest {

    @TempDir
    Path root;

    private AdapterRecorder recorder;

    @BeforeEach
    void open_a_recorder() {
        recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withSummaryLine(false).withAdoptOrphans(false));
    }

    @Test
    void a_test_has_its_steps_lines_and_data_in_order() throws Exception {
        Scope container = recorder.startContainer(recorder.run(), descriptor("RotaTest", null));
        Scope test = recorder.startTest(container, descriptor("RotaTest", "swaps"));
        Step setUp = recorder.startStep(StepKind.SET_UP, "open the rota");
        setUp.passed();
        recorder.data("plot", 12);
        Step outer = recorder.startStep("Swap");
        Step inner = recorder.startStep("Choose");
        recorder.log("in the inner step");
        inner.passed();
        recorder.log("in the outer step");
        outer.passed();
        recorder.log("in the test");
        recorder.endTest(test, TestEnd.passed());
        recorder.endContainer(container, TestEnd.passed(), 0);

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
        Scope test = recorder.startTest(recorder.run(), descriptor("GateTest", "opens"));
        recorder.register(source("camera", evidence -> {
            asked.add("camera");
            evidence.attach("screenshot", AttachmentKind.SCREENSHOT, new byte[] {1, 2, 3}, MediaType.PNG);
        }));
        Step outer = recorder.startStep("Visit");
        Step inner = recorder.startStep("Open the gate");
        inner.failed(failure);
        outer.failed(failure);
        recorder.captureEvidence(new RuntimeException("wrapped by the framework", failure));
        recorder.endTest(test, TestEnd.threw(failure));

        TestResult read = onlyTest();

        assertThat(asked).containsExactly("camera");
        assertThat(read.outcome()).isEqualTo(Outcome.ERRORED);
        assertThat(outline(read.entries()))
                .containsExactly(
                        "action Visit errored",
                        "  action Open the gate errored: the gate is locked",
                        "    screenshot image/png tests/GateTest/opens/01-screenshot.png");
        Failure written = read.failure();
        assertThat(written).isNotNull();
        assertThat(written.stack()).contains("RecorderTest.java");
    }

    @Test
    void a_source_that_throws_is_noted_and_the_others_are_still_asked() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("GateTest", "opens"));
        recorder.register(source("camera", evidence -> {
            throw new IOException("no image");
        }));
        recorder.register(source("gardener", evidence -> evidence.log("saw it happen")));
        recorder.endTest(test, TestEnd.threw(new AssertionError("shut")));

        TestResult read = onlyTest();

        assertThat(read.outcome()).isEqualTo(Outcome.FAILED);
        assertThat(outline(read.entries()))
                .containsExactly("No evidence from camera: java.io.IOException: no image", "saw it happen");
    }

    @Test
    void evidence_of_a_class_serves_its_tests_and_no_others() throws Exception {
        Scope one = recorder.startContainer(recorder.run(), descriptor("OneTest", null));
        recorder.register(source("of the class", evidence -> evidence.log("asked")));
        Scope inOne = recorder.startTest(one, descriptor("OneTest", "fails"));
        recorder.endTest(inOne, TestEnd.threw(new AssertionError()));
        recorder.endContainer(one, TestEnd.passed(), 0);
        Scope other = recorder.startTest(recorder.run(), descriptor("OtherTest", "fails"));
        recorder.endTest(other, TestEnd.threw(new AssertionError()));

        List<TestResult> tests = read().tests();

        assertThat(outline(tests.get(0).entries())).containsExactly("asked");
        assertThat(tests.get(1).entries()).isEmpty();
    }

    @Test
    void a_source_is_asked_until_its_registration_ends() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("OneTest", "fails"));
        Registration first = recorder.register(source("first", evidence -> evidence.log("first was asked")));
        recorder.register(source("second", evidence -> evidence.log("second was asked")));
        first.close();
        first.close();
        recorder.register(null).close();
        recorder.endTest(test, TestEnd.threw(new AssertionError()));
        first.close();

        assertThat(outline(onlyTest().entries())).containsExactly("second was asked");
    }

    @Test
    void attachments_are_numbered_and_named_for_a_person() throws Exception {
        Path file = Files.writeString(root.resolve("harvest.csv"), "plot,kilos\n");
        Scope test = recorder.startTest(recorder.run(), descriptor("Attachment Test", "keeps"));
        recorder.attach("rota before: swap", "Mon,Ada\n".getBytes(StandardCharsets.UTF_8), MediaType.CSV);
        recorder.attach("rota.json", new ByteArrayInputStream("{}".getBytes(StandardCharsets.UTF_8)), MediaType.JSON);
        recorder.attach(file);
        recorder.attach("../../evil.sh", new byte[1], MediaType.of("application/x-sh"));
        recorder.attach(root.resolve("nowhere.png"));
        recorder.endTest(test, TestEnd.passed());

        Run run = read();

        assertThat(outline(run.tests().get(0).entries()))
                .containsExactly(
                        "rota before: swap text/csv tests/Attachment-Test/keeps/01-rota-before-swap.csv",
                        "rota.json application/json tests/Attachment-Test/keeps/02-rota.json",
                        "harvest.csv text/csv tests/Attachment-Test/keeps/03-harvest.csv",
                        "../../evil.sh application/x-sh tests/Attachment-Test/keeps/04-evil.sh");
        assertThat(run.folder().resolve("tests/Attachment-Test/keeps/01-rota-before-swap.csv"))
                .hasContent("Mon,Ada\n");
        assertThat(run.problems().get(0).what()).contains("nowhere.png");
        assertThat(run.incomplete().byKind()).isEqualTo(Map.of("attachment", 1L));
    }

    @Test
    void a_stream_that_breaks_costs_its_attachment_and_leaves_no_half_of_it() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("AttachmentTest", "breaks"));
        recorder.attach(
                "video",
                new InputStream() {
                    private int given;

                    @Override
                    public int read() throws IOException {
                        if (given++ < 20_000) return 'x';
                        throw new IOException("the tape is torn");
                    }
                },
                MediaType.of("video/webm"));
        recorder.endTest(test, TestEnd.passed());

        Run run = read();

        assertThat(run.tests().get(0).entries()).isEmpty();
        assertThat(run.problems().get(0).what()).contains("video", "torn");
        assertThat(run.incomplete().byKind()).isEqualTo(Map.of("attachment", 1L));
        assertThat(run.folder().resolve("tests/AttachmentTest/breaks")).isEmptyDirectory();
    }

    @Test
    void namesakes_have_folders_of_their_own() throws Exception {
        for (int i = 0; i < 3; i++) {
            Scope test = recorder.startTest(recorder.run(), descriptor("AgainTest", "again"));
            recorder.attach("a", new byte[1], MediaType.TEXT);
            recorder.endTest(test, TestEnd.passed());
        }

        Run run = read();

        assertThat(run.folder().resolve("tests/AgainTest")).isDirectoryContaining("glob:**/again-3");
        assertThat(run.tests())
                .extracting(TestResult::id)
                .containsExactly(
                        "sample.AgainTest.again()", "sample.AgainTest.again()~2", "sample.AgainTest.again()~3");
    }

    @Test
    void a_line_of_no_test_is_kept_with_the_run_and_its_thread() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("PoolTest", "runs"));
        var stray = new Thread(() -> recorder.log("nobody carried me"), "irrigation");
        stray.start();
        stray.join();
        var carried = new Thread(() -> {
            Entered entered = recorder.enter(test);
            recorder.log("I was brought along");
            entered.close();
        });
        carried.start();
        carried.join();
        recorder.endTest(test, TestEnd.passed());

        Run run = read();

        assertThat(run.entries()).singleElement().satisfies(entry -> {
            var log = (Entry.LogEntry) entry;
            assertThat(log.text()).isEqualTo("nobody carried me");
            assertThat(log.thread()).isEqualTo("irrigation");
        });
        assertThat(outline(run.tests().get(0).entries())).containsExactly("I was brought along");
    }

    @Test
    void ending_twice_or_out_of_order_harms_nobody_and_is_said() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("OddTest", "ends"));
        Step outer = recorder.startStep("outer");
        Step inner = recorder.startStep("inner");
        outer.passed();
        recorder.log("after the outer");
        inner.passed();
        inner.passed();
        recorder.log("after both");
        recorder.endTest(test, TestEnd.passed());
        recorder.endTest(test, TestEnd.passed());

        Run run = read();

        assertThat(outline(run.tests().get(0).entries()))
                .containsExactly("action outer passed", "  action inner passed", "after the outer", "after both");
        assertThat(run.problems())
                .extracting(Problem::what)
                .containsExactly(
                        "A step was ended on another thread than began it, or after a step around it, on thread main",
                        "A step was ended a second time on thread main",
                        "A test was ended a second time on thread main");
    }

    @Test
    void eight_threads_with_tests_of_their_own_never_mix() throws Exception {
        ExecutorService pool = Executors.newFixedThreadPool(8);
        for (int i = 0; i < 200; i++) {
            String method = "test" + i;
            pool.submit(() -> {
                Scope test = recorder.startTest(recorder.run(), descriptor("MixTest", method));
                for (int step = 0; step < 5; step++) {
                    Step one = recorder.startStep(method + " step");
                    recorder.log(method);
                    one.passed();
                }
                recorder.endTest(test, TestEnd.passed());
            });
        }
        pool.shutdown();
        assertThat(pool.awaitTermination(1, TimeUnit.MINUTES)).isTrue();

        List<TestResult> tests = read().tests();

        assertThat(tests)
                .hasSize(200)
                .allSatisfy(test -> assertThat(outline(test.entries()))
                        .hasSize(10)
                        .allMatch(line -> line.strip().equals(test.methodName())
                                || line.equals("action " + test.methodName() + " step passed")));
    }

    @Test
    void a_test_that_is_still_open_reads_as_unfinished_with_its_last_step() throws Exception {
        recorder.startTest(recorder.run(), descriptor("CutTest", "hangs"));
        recorder.startStep("Wait for rain");
        recorder.log("clouds");

        TestResult read = onlyTest();

        assertThat(read.outcome()).isEqualTo(Outcome.UNFINISHED);
        assertThat(outline(read.entries())).containsExactly("action Wait for rain unfinished", "  clouds");
    }

    @Test
    void a_folder_that_cannot_be_made_switches_recording_off_and_nothing_else() throws Exception {
        Path file = Files.createFile(root.resolve("in-the-way"));

        AdapterRecorder off = AdapterRecorder.open(RecorderOptions.defaults().withRoot(file));

        assertThat(off.isRecording()).isFalse();
        assertThatCode(() -> {
                    Scope test = off.startTest(off.run(), descriptor("OffTest", "goes on"));
                    off.startStep("a step").passed();
                    off.enter(test).close();
                    off.attach("a", new byte[0], MediaType.TEXT);
                    off.endTest(test, TestEnd.passed());
                    off.sessionEnded();
                })
                .doesNotThrowAnyException();
    }

    @Test
    void an_exception_that_throws_when_it_is_asked_costs_its_words_and_not_the_test() throws Exception {
        var hostile = new RuntimeException() {
            private static final long serialVersionUID = 1;

            @Override
            public String getMessage() {
                throw new IllegalStateException("not telling");
            }

            @Override
            public synchronized Throwable getCause() {
                throw new IllegalStateException("not telling");
            }
        };
        Scope test = recorder.startTest(recorder.run(), descriptor("OddTest", "throws"));

        assertThatCode(() -> {
                    recorder.startStep("a step").failed(hostile);
                    recorder.startStep("another").failed(null);
                    recorder.endTest(test, TestEnd.threw(hostile));
                })
                .doesNotThrowAnyException();

        assertThat(onlyTest().outcome()).isEqualTo(Outcome.ERRORED);
        assertThat(onlyTest().failure().stack()).contains("RecorderTest.java");
    }

    @Test
    void text_without_an_end_of_line_is_masked_with_flat_memory() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("LongTest", "long"));
        recorder.attach(
                "words",
                ("token=abcdef&a=1 " + "x".repeat(80)).repeat(60_000).getBytes(StandardCharsets.UTF_8),
                MediaType.TEXT);
        recorder.attach("one word", "x".repeat(5_000_000).getBytes(StandardCharsets.UTF_8), MediaType.TEXT);
        recorder.endTest(test, TestEnd.passed());

        Path folder = read().folder().resolve("tests/LongTest/long");

        assertThat(Files.readString(folder.resolve("01-words.txt")))
                .doesNotContain("abcdef")
                .contains("token=[masked]&a=1");
        assertThat(Files.size(folder.resolve("02-one-word.txt"))).isEqualTo(5_000_000);
    }

    @Test
    void a_vanished_folder_costs_attachments_and_never_the_test() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("GoneTest", "goes on"));
        Path folder = read().folder();
        Path journal = folder.resolve("journals/worker-1.jsonl");
        Files.delete(folder.resolve("run.json"));
        Files.writeString(folder.resolve("tests"), "a file where the folder should be");

        assertThatCode(() -> recorder.attach("a", new byte[1], MediaType.TEXT)).doesNotThrowAnyException();
        recorder.endTest(test, TestEnd.passed());

        assertThat(Files.readString(journal)).contains("\"problem\"").contains("attaching: java.io.IOException: 'a'");
    }

    @Test
    void what_is_recorded_during_a_step_beside_stands_beside_it() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("WaitTest", "waits"));
        Step wait = recorder.startOverlappingStep(StepKind.BROWSER, "wait for *rain*");
        recorder.startStep("Look at the sky").passed();
        var elsewhere = new Thread(wait::passed);
        elsewhere.start();
        elsewhere.join();
        recorder.log("it rains");
        recorder.endTest(test, TestEnd.passed());

        Run run = RunReader.read(root);
        List<Entry> entries = run.tests().get(0).entries();
        assertThat(entries).hasSize(3);
        assertThat(((Entry.StepEntry) entries.get(0)).name()).isEqualTo("wait for *rain*");
        assertThat(((Entry.StepEntry) entries.get(0)).outcome()).isEqualTo(Outcome.PASSED);
        assertThat(run.problems()).isEmpty();
    }

    @Test
    void a_step_can_be_skipped_budgeted_or_left_without_a_word() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("StepTest", "steps"));
        recorder.startStep("Pay by card").skipped("no card reader");
        recorder.startStep("Answer").within(Duration.ofSeconds(5)).passed();
        try (Step left = recorder.startStep("Leave")) {
            recorder.log("inside");
        }
        recorder.log("back in the test");
        recorder.endTest(test, TestEnd.passed());

        List<Entry> entries = onlyTest().entries();

        assertThat(outline(entries))
                .containsExactly(
                        "action Pay by card skipped",
                        "action Answer passed",
                        "action Leave unfinished",
                        "  inside",
                        "back in the test");
        assertThat(((Entry.StepEntry) entries.get(0)).reason()).isEqualTo("no card reader");
        assertThat(((Entry.StepEntry) entries.get(1)).budget()).isEqualTo(Duration.ofSeconds(5));
    }

    @Test
    void checks_are_gathered_where_somebody_throws_them_and_not_elsewhere() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("CheckTest", "checks"));
        boolean gatheredBefore = recorder.checked("early", new AssertionError("alone"));
        recorder.gatherChecks();
        recorder.checked("the gate", null);
        boolean gathered = recorder.checked("the shed", new AssertionError("locked"));
        ChecksFailed all = recorder.failedChecks();
        recorder.endTest(test, TestEnd.threw(all));

        TestResult read = onlyTest();

        assertThat(gatheredBefore).isFalse();
        assertThat(gathered).isTrue();
        assertThat(all).hasMessage("1 check failed:\n  the shed: locked");
        assertThat(read.failure().gathered()).extracting(Failure::message).containsExactly("locked");
        assertThat(read.entries().stream()
                        .filter(entry -> entry instanceof Entry.CheckEntry)
                        .map(entry -> ((Entry.CheckEntry) entry).name() + " "
                                + ((Entry.CheckEntry) entry).outcome().word()))
                .containsExactly("early failed", "the gate passed", "the shed failed");
    }

    @Test
    void work_that_is_carried_belongs_to_the_step_it_was_handed_over_in() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("CarryTest", "carries"));
        ExecutorService pool = Executors.newFixedThreadPool(2);
        ExecutorService carrying = recorder.carry(pool);
        Step step = recorder.startStep("Ask the neighbours");
        carrying.submit(() -> recorder.log("Ada says yes")).get();
        CompletableFuture.supplyAsync(() -> 7, carrying)
                .thenAcceptAsync(n -> recorder.log("plot " + n), carrying)
                .get();
        pool.submit(recorder.carry(() -> {
                    recorder.log("Bruno too");
                    return 1;
                }))
                .get();
        pool.submit(() -> recorder.log("nobody asked me")).get();
        step.passed();
        recorder.endTest(test, TestEnd.passed());
        carrying.shutdown();

        Run run = read();

        assertThat(outline(run.tests().get(0).entries()))
                .containsExactly("action Ask the neighbours passed", "  Ada says yes", "  plot 7", "  Bruno too");
        assertThat(outline(run.entries())).containsExactly("nobody asked me");
    }

    @Test
    void a_stray_line_is_given_to_the_only_test_that_runs() throws Exception {
        AdapterRecorder giving = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root).withRun("zzz").withSummaryLine(false));
        Scope first = giving.startTest(giving.run(), descriptor("StrayTest", "first"));
        inThread(() -> giving.log("there is one test"));
        Thread second = new Thread(() -> {
            Scope other = giving.startTest(giving.run(), descriptor("StrayTest", "second"));
            inThread(() -> giving.log("there are two"));
            giving.endTest(other, TestEnd.passed());
        });
        second.start();
        second.join();
        giving.endTest(first, TestEnd.passed());

        Run run = RunReader.read(root.resolve("zzz"));

        assertThat(outline(run.tests().get(0).entries())).containsExactly("there is one test");
        assertThat(outline(run.entries())).containsExactly("there are two");
    }

    @Test
    void a_pending_attachment_may_come_after_its_test_and_is_missed_where_it_never_does() throws Exception {
        Path video = Files.write(root.resolve("video.webm"), new byte[] {0x1A, 0x45, (byte) 0xDF, (byte) 0xA3});
        Scope test = recorder.startTest(recorder.run(), descriptor("VideoTest", "plays"));
        PendingAttachment kept = recorder.attachLater("video", AttachmentKind.ATTACHMENT);
        recorder.attachLater("forgotten video", AttachmentKind.ATTACHMENT);
        recorder.endTest(test, TestEnd.passed());
        kept.complete(video);
        kept.complete(video);

        Run run = read();

        assertThat(run.tests().get(0).entries())
                .satisfiesExactly(
                        pending -> assertThat(pending).isInstanceOf(Entry.PendingEntry.class),
                        stored -> assertThat(stored).isInstanceOf(Entry.AttachmentEntry.class));
        assertThat(run.folder().resolve("tests/VideoTest/plays/01-video.webm")).exists();
        assertThat(video).doesNotExist();
        assertThat(run.problems())
                .singleElement()
                .extracting(Problem::what)
                .asString()
                .contains("a second time");
    }

    @Test
    void content_of_unknown_type_is_known_by_its_first_bytes_and_every_attachment_by_its_digest() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("TypeTest", "types"));
        recorder.attach("image", new byte[] {(byte) 0x89, 'P', 'N', 'G', 13}, MediaType.UNKNOWN);
        recorder.attach("answer", " {\"a\":1}".getBytes(StandardCharsets.UTF_8), MediaType.UNKNOWN);
        recorder.endTest(test, TestEnd.passed());

        Run run = read();

        assertThat(outline(run.tests().get(0).entries()))
                .containsExactly(
                        "image image/png tests/TypeTest/types/01-image.png",
                        "answer application/json tests/TypeTest/types/02-answer.json");
        assertThat(Files.readString(run.folder().resolve("journals/worker-1.jsonl")))
                .contains("\"sha256\":\"" + sha256(" {\"a\":1}") + "\"");
    }

    @Test
    void log_lines_have_limits_and_say_so() throws Exception {
        AdapterRecorder limited = AdapterRecorder.open(RecorderOptions.defaults()
                .withRoot(root)
                .withRun("zzz")
                .withSummaryLine(false)
                .withLogging(new RecorderOptions.Logging(3, 10, false)));
        Scope test = limited.startTest(limited.run(), descriptor("LogTest", "logs"));
        for (int i = 0; i < 5; i++)
            limited.log(LogLine.of("line " + i + " is long")
                    .level("info")
                    .logger("garden")
                    .thread("main")
                    .context(Map.of("user", "ada"))
                    .build());
        limited.endTest(test, TestEnd.passed());

        List<Entry> entries = RunReader.read(root.resolve("zzz")).tests().get(0).entries();

        assertThat(entries).hasSize(4);
        assertThat(((Entry.LogEntry) entries.get(0)).text())
                .isEqualTo("line 0 is  ... (4 more characters are left out)");
        assertThat(((Entry.LogEntry) entries.get(0)).context()).containsEntry("user", "ada");
        assertThat(((Entry.LogEntry) entries.get(3)).text()).startsWith("2 log lines are left out");
    }

    @Test
    void a_line_that_cannot_be_made_is_said_and_only_what_is_missing_of_ours_is_laid_to_the_adapter() throws Exception {
        Scope test = recorder.startTest(recorder.run(), descriptor("LogTest", "logs"));
        recorder.log(() -> {
            throw new NoClassDefFoundError("orto/Bed");
        });
        assertThat(read().problems()).isEmpty();
        recorder.log(() -> {
            throw new NoSuchMethodError("'dev.verbale.spi.LogLine dev.verbale.spi.LogLine.older()'");
        });
        recorder.endTest(test, TestEnd.passed());

        Run run = read();

        assertThat(run.problems())
                .singleElement()
                .satisfies(problem -> assertThat(problem.what())
                        .contains(
                                "The lines of a logger are lost",
                                "LogLine.older()",
                                "Take all of them from one version"));
        assertThat(run.tests().get(0).entries())
                .extracting(entry -> ((Entry.LogEntry) entry).text())
                .allMatch(text -> text.startsWith("(a line could not be made: "))
                .hasSize(2);
    }

    @Test
    void a_secret_comes_through_no_door() throws Exception {
        String secret = "correct horse \"battery\"";
        String base64 = Base64.getEncoder().encodeToString(("ada:" + secret).getBytes(StandardCharsets.UTF_8));
        recorder.secret(secret);
        recorder.fact("fact " + secret, secret);
        Scope container = recorder.startContainer(
                recorder.run(),
                TestDescriptor.of("k " + secret, secret).className(secret).build());
        Scope test = recorder.startTest(
                container,
                TestDescriptor.of("t " + secret, secret)
                        .className(secret)
                        .methodName(secret)
                        .tags(List.of(secret))
                        .build());
        recorder.data("password", "hunter2hunter2");
        recorder.data(secret, secret);
        recorder.log(secret + URLEncoder.encode(secret, StandardCharsets.UTF_8));
        recorder.log(LogLine.of(base64)
                .level("info")
                .logger(secret)
                .thread(secret)
                .context(Map.of("user", secret))
                .thrown(new IllegalStateException(secret))
                .build());
        recorder.attach(
                secret + ".html",
                ("<p>" + secret + "</p>" + base64 + "\n").getBytes(StandardCharsets.UTF_8),
                MediaType.HTML);
        recorder.attach(
                "json",
                ("{\"a\":\"" + secret.replace("\"", "\\\"") + "\"}").getBytes(StandardCharsets.UTF_8),
                MediaType.JSON);
        recorder.about(About.of()
                .text(secret)
                .severity(secret)
                .owner(secret)
                .link(secret)
                .build());
        recorder.register(source(secret, evidence -> {
            evidence.log(secret);
            evidence.attach(
                    secret, AttachmentKind.PAGE_SOURCE, secret.getBytes(StandardCharsets.UTF_8), MediaType.HTML);
        }));
        recorder.attachLater(secret, AttachmentKind.ATTACHMENT)
                .complete(new ByteArrayInputStream(secret.getBytes(StandardCharsets.UTF_8)), MediaType.TEXT);
        recorder.checked(secret, new AssertionError(secret));
        recorder.startStep(secret).skipped(secret);
        recorder.startStep(secret).failed(new RuntimeException(secret, new IOException(secret)));
        recorder.endTest(test, TestEnd.threw(new AssertionError(secret)));
        recorder.endContainer(
                container, TestEnd.of(Outcome.ERRORED).reason(secret).build(), 0);

        Run run = read();
        Path folder = run.folder();
        assertThat(Files.readString(folder.resolve("journals/worker-1.jsonl")).split("\\[masked]", -1))
                .as("what came in by the doors is there")
                .hasSizeGreaterThan(30);

        List<String> forms = List.of(
                "correct horse",
                "correct+horse",
                "correct%20horse",
                "hunter2hunter2",
                base64.substring(8, 28),
                "correct-horse");
        try (Stream<Path> files = Files.walk(folder)) {
            for (Path file : files.toList()) {
                String content = folder.relativize(file) + (Files.isRegularFile(file) ? Files.readString(file) : "");
                assertThat(content).as(file.toString()).doesNotContain(forms);
            }
        }
    }

    private static void inThread(Runnable work) {
        Thread thread = new Thread(work);
        thread.start();
        try {
            thread.join();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }

    private static String sha256(String text) throws Exception {
        byte[] digest = MessageDigest.getInstance("SHA-256").digest(text.getBytes(StandardCharsets.UTF_8));
        return HexFormat.of().formatHex(digest);
    }

    private TestDescriptor descriptor(String className, String method) {
        String type = "sample." + className;
        return method == null
                ? TestDescriptor.of(type, className).className(type).build()
                : TestDescriptor.of(type + "." + method + "()", method)
                        .className(type)
                        .methodName(method)
                        .tags(List.of("smoke", "api"))
                        .build();
    }

    private Run read() throws IOException {
        return RunReader.read(root);
    }

    private TestResult onlyTest() throws IOException {
        List<TestResult> tests = read().tests();
        assertThat(tests).hasSize(1);
        return tests.get(0);
    }

    private interface Capturing {
        void capture(Evidence evidence) throws Exception;
    }

    private static EvidenceSource source(String name, Capturing capturing) {
        return new EvidenceSource() {
            @Override
            public String name() {
                return name;
            }

            @Override
            public void capture(Evidence evidence) throws Exception {
                capturing.capture(evidence);
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
                String message =
                        step.failure() == null ? "" : ": " + step.failure().message();
                lines.add(indent + step.kind().word() + " " + step.name() + " "
                        + step.outcome().word() + message);
                outline(step.entries(), indent + "  ", lines);
            } else if (entry instanceof Entry.LogEntry line) lines.add(indent + line.text());
            else if (entry instanceof Entry.DataEntry data) lines.add(indent + data.name() + "=" + data.value());
            else if (entry instanceof Entry.AttachmentEntry attachment)
                lines.add(indent + attachment.name() + " " + attachment.stored().mediaType() + " "
                        + attachment.stored().path());
        }
    }
}
