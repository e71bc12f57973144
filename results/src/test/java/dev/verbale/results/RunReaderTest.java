package dev.verbale.results;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.offset;
import static org.assertj.core.api.Assertions.tuple;

import dev.verbale.event.AboutStated;
import dev.verbale.event.AttachmentPending;
import dev.verbale.event.AttachmentStored;
import dev.verbale.event.AttachmentStored.StoredFile;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.DataNamed;
import dev.verbale.event.EventsMissed;
import dev.verbale.event.FactStated;
import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.LogWritten;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a folder says, whole or not. */
class RunReaderTest {

    @TempDir
    Path root;

    @Test
    void workers_are_joined_in_the_order_of_time() throws Exception {
        SampleRun run = SampleRun.in(root, "run");
        run.worker("worker-2", SampleRun.WALL)
                .test("second", Outcome.PASSED, null)
                .write(new JournalEnded(200_000, 0, Map.of(), 0));
        run.worker("worker-1", SampleRun.WALL.minusSeconds(5)).test("first", Outcome.FAILED, null);

        Run read = run.readOpen();

        assertThat(read.tests()).extracting(TestResult::name).containsExactly("first", "second");
        assertThat(read.started()).isEqualTo(SampleRun.WALL.minusSeconds(5));
        assertThat(read.duration()).isEqualTo(Duration.ofMillis(5_200));
        assertThat(read.workers())
                .extracting(Worker::name, Worker::ended)
                .containsExactly(tuple("worker-1", false), tuple("worker-2", true));
        assertThat(read.counts().of(Outcome.FAILED)).isEqualTo(1);
        assertThat(read.counts().all()).isEqualTo(2);
    }

    @Test
    void what_is_open_at_the_end_is_unfinished_and_lasted_until_the_last_word() throws Exception {
        Run read = SampleRun.in(root, "run")
                .write(
                        ContainerStarted.of(1, 1, "c", "Rota")
                                .className("sample.Rota")
                                .build(),
                        TestStarted.of(1_000, 2, "k", "hangs")
                                .in(1)
                                .thread("main")
                                .build(),
                        StepStarted.of(2_000, 3, StepKind.ACTION, "outer").in(2).build(),
                        StepStarted.of(3_000, 4, StepKind.ACTION, "inner").in(3).build(),
                        LogWritten.text(9_000, 4, "last word", null))
                .read();

        TestResult test = read.tests().get(0);
        var outer = (Entry.StepEntry) test.entries().get(0);
        var inner = (Entry.StepEntry) outer.entries().get(0);
        assertThat(List.of(test.outcome(), outer.outcome(), inner.outcome())).containsOnly(Outcome.UNFINISHED);
        assertThat(test.duration()).isEqualTo(Duration.ofMillis(8));
        assertThat(inner.duration()).isEqualTo(Duration.ofMillis(6));
        assertThat(read.brokenContainers()).isEmpty();
    }

    @Test
    void a_container_that_broke_is_found_with_what_it_cost() throws Exception {
        Run read = SampleRun.in(root, "run")
                .write(
                        ContainerStarted.of(1, 1, "c", "Greenhouse")
                                .className("sample.G")
                                .build(),
                        ContainerEnded.of(2, 1, Outcome.ERRORED)
                                .failure(SampleRun.failure("E", "no glass"))
                                .notRun(4)
                                .build())
                .read();

        assertThat(read.brokenContainers())
                .singleElement()
                .satisfies(c -> assertThat(c.notRun()).isEqualTo(4));
        assertThat(Headline.of(read))
                .isEqualTo("No test was recorded. \"Greenhouse\" broke outside its tests; 4 tests of it did not run.");
    }

    @Test
    void nothing_is_dropped_in_silence() throws Exception {
        SampleRun run = SampleRun.in(root, "run")
                .write(
                        LogWritten.text(1, 77, "orphan", null),
                        StepEnded.of(2, 88, Outcome.PASSED).build(),
                        TestEnded.of(2, 99, Outcome.PASSED).build(),
                        AttachmentStored.of(
                                        3,
                                        0,
                                        "gone",
                                        AttachmentKind.ATTACHMENT,
                                        new StoredFile("tests/a/01-gone.txt", "text/plain", 5, null))
                                .build(),
                        AttachmentStored.of(
                                        4,
                                        0,
                                        "foreign",
                                        AttachmentKind.ATTACHMENT,
                                        new StoredFile("../../../etc/hostname", "text/plain", 5, null))
                                .build(),
                        new JournalEnded(5, 3, Map.of("log", 3L), 0));
        Files.writeString(
                run.path().resolve("journals/worker-1.jsonl"),
                "{\"event\":\"retry\",\"at\":6}\n{\"ev",
                StandardOpenOption.APPEND);

        Run read = run.read();

        assertThat(read.entries()).hasSize(4);
        assertThat(((Entry.AttachmentEntry) read.entries().get(1)).file()).isNull();
        assertThat(((Entry.AttachmentEntry) read.entries().get(2)).file()).isNull();
        assertThat(read.problems())
                .extracting(Problem::sentence)
                .containsExactly(
                        "journals/worker-1.jsonl:2: belongs to 77, whose beginning is not in this journal; it is shown with the run",
                        "journals/worker-1.jsonl:3: ends 88, whose beginning is not in this journal",
                        "journals/worker-1.jsonl:4: ends 99, whose beginning is not in this journal",
                        "journals/worker-1.jsonl:5: the attachment 'tests/a/01-gone.txt' is missing",
                        "journals/worker-1.jsonl:6: the attachment '../../../etc/hostname' lies outside the run folder",
                        "journals/worker-1.jsonl:10: torn: the journal ends in the middle of a line",
                        "journals/worker-1.jsonl: the event retry is of a later version, and shown as it is. Read the run with a newer Verbale",
                        "journals/worker-1.jsonl: 3 events could not be recorded: {log=3}");
    }

    @Test
    void a_retry_supersedes_what_failed_and_the_test_counts_once() throws Exception {
        Run read = SampleRun.in(root, "run")
                .test("steady", Outcome.PASSED, null)
                .test("shaky", Outcome.FAILED, SampleRun.failure("E", "wind"))
                .test("shaky", Outcome.PASSED, null)
                .test("twice", Outcome.PASSED, null)
                .test("twice", Outcome.PASSED, null)
                .test("never", Outcome.FAILED, SampleRun.failure("E", "rain"))
                .test("never", Outcome.FAILED, SampleRun.failure("E", "rain"))
                .read();

        assertThat(read.counts().all()).isEqualTo(4);
        assertThat(read.needingAttention()).extracting(TestResult::id).containsExactly("sample.never()~2");
        assertThat(Headline.of(read))
                .startsWith("1 of 4 tests did not pass: 1 failed, for one reason.")
                .endsWith("1 test is flaky: it passed on a later attempt.");
    }

    @Test
    void what_is_said_about_a_test_and_its_steps_is_there() throws Exception {
        Run read = SampleRun.in(root, "run")
                .write(
                        TestStarted.of(1, 1, "k", "n").thread("main").build(),
                        new AboutStated(
                                2,
                                1,
                                About.of().text("about").owner("Ada").link("a").build()),
                        new AboutStated(
                                3,
                                1,
                                About.of()
                                        .severity("grave")
                                        .link(new About.Link("b", "https://b"))
                                        .build()),
                        StepStarted.of(4, 2, StepKind.ACTION, "slow").in(1).build(),
                        new StepBudgeted(4, 2, 1_000),
                        StepEnded.of(5_004, 2, Outcome.PASSED).build(),
                        new AttachmentPending(6_000, 1, 7, "kept", "attachment"),
                        new AttachmentPending(6_000, 1, 8, "forgotten", "attachment"),
                        TestEnded.of(7_000, 1, Outcome.PASSED).build(),
                        AttachmentStored.of(
                                        9_000,
                                        1,
                                        "kept",
                                        "attachment",
                                        new StoredFile("run/01-kept.txt", "text/plain", 3, "ab"))
                                .pending(7)
                                .build(),
                        new JournalEnded(10_000, 0, Map.of(), 21))
                .read();

        TestResult test = read.tests().get(0);
        assertThat(test.about().text()).isEqualTo("about");
        assertThat(test.about().severity()).isEqualTo("grave");
        assertThat(test.about().links()).hasSize(2);
        var step = (Entry.StepEntry) test.entries().get(0);
        assertThat(step.budget()).isEqualTo(Duration.ofMillis(1)).isLessThan(step.duration());
        assertThat(test.entries().subList(1, 3))
                .satisfiesExactly(
                        pending -> assertThat(((Entry.PendingEntry) pending).name())
                                .isEqualTo("forgotten"),
                        stored -> assertThat(((Entry.AttachmentEntry) stored).name())
                                .isEqualTo("kept"));
        assertThat(read.overhead()).isEqualTo(0.003, offset(0.0001));
    }

    @Test
    void a_newer_format_is_said_and_read_as_far_as_it_is_known() throws Exception {
        SampleRun run = SampleRun.in(root, "run")
                .test("known", Outcome.PASSED, null)
                .write(new JournalEnded(0, 0, Map.of(), 0));
        Path journal = run.path().resolve("journals/worker-1.jsonl");
        Files.writeString(
                journal,
                Files.readString(journal)
                        .replace("\"format\":1", "\"format\":2")
                        .replaceAll("\\{\"event\":\"checksum\".*\\R", ""));

        Run read = run.read();

        assertThat(read.tests()).hasSize(1);
        assertThat(read.problems())
                .singleElement()
                .extracting(Problem::sentence)
                .asString()
                .contains("worker-1.jsonl:1: the journal has format 2", "newer Verbale");
    }

    /** The children of what nobody knows stay with it, its words are kept, and each is said once. */
    @Test
    void what_a_later_version_wrote_is_shown_as_it_is_where_it_happened() throws Exception {
        SampleRun run = SampleRun.in(root, "run")
                .write(
                        TestStarted.of(0, 1, "k", "sows").thread("main").build(),
                        LogWritten.text(1, 1, "before", null),
                        new JournalEnded(1, 0, Map.of(), 0));
        Files.writeString(run.path().resolve("journals/worker-1.jsonl"), """
                {"event":"wave-started","at":2,"id":7,"in":1,"mood":"calm"}
                {"event":"log","at":3,"in":7,"text":"inside","mood":"a"}
                {"event":"step-started","at":4,"id":8,"in":7,"kind":"gherkin","name":"Given a bed"}
                {"event":"log","at":5,"in":8,"text":"deeper","mood":"b"}
                {"event":"step-ended","at":6,"id":8,"outcome":"undecided"}
                {"event":"test-ended","at":9,"id":1,"outcome":"undecided"}
                """, StandardOpenOption.APPEND);

        Run read = run.read();

        TestResult test = read.tests().get(0);
        assertThat(test.outcome().word()).isEqualTo("undecided");
        assertThat(read.needingAttention()).containsExactly(test);
        assertThat(read.counts().byOutcome()).containsOnlyKeys(test.outcome());
        var wave = (Entry.UnknownEntry) test.entries().get(1);
        assertThat(wave.word()).isEqualTo("wave-started");
        assertThat(wave.json()).contains("\"mood\":\"calm\"");
        assertThat(wave.entries().get(0)).isInstanceOf(Entry.LogEntry.class);
        var step = (Entry.StepEntry) wave.entries().get(1);
        assertThat(step.kind().word()).isEqualTo("gherkin");
        assertThat(step.outcome().word()).isEqualTo("undecided");
        assertThat(step.entries()).hasSize(1);
        assertThat(read.problems())
                .extracting(Problem::what)
                .satisfies(whats -> assertThat(whats)
                        .anyMatch(what -> what.startsWith("the event wave-started is of a later version"))
                        .anyMatch(what -> what.startsWith("the field log.mood is of a later version")
                                && what.contains("(2 times)"))
                        .anyMatch(what -> what.startsWith("the kind of step gherkin"))
                        .anyMatch(what -> what.startsWith("the outcome undecided")))
                .hasSize(4);
    }

    @Test
    void a_run_that_lost_its_description_or_its_journals_is_still_read() throws Exception {
        SampleRun nameless = SampleRun.in(root, "nameless").test("there", Outcome.PASSED, null);
        Files.delete(nameless.path().resolve("run.json"));
        SampleRun mute = SampleRun.in(root, "mute");

        assertThat(nameless.read().tests()).hasSize(1);
        assertThat(nameless.read().problems())
                .singleElement()
                .extracting(Problem::file)
                .isEqualTo("run.json");
        assertThat(mute.read().problems())
                .singleElement()
                .extracting(Problem::what)
                .asString()
                .startsWith("there is no journal");
    }

    @Test
    void facts_keep_their_first_place_and_their_last_value() throws Exception {
        Run read = SampleRun.in(root, "run")
                .write(
                        new FactStated(1, "season", "spring"),
                        new FactStated(2, "crop", "kale"),
                        new FactStated(3, "season", "summer"))
                .read();

        assertThat(read.facts())
                .containsExactly(Map.entry("os", "Linux"), Map.entry("season", "summer"), Map.entry("crop", "kale"));
    }

    @Test
    void a_results_root_stands_for_its_newest_run() throws Exception {
        SampleRun.in(root, "2026-11-24_103107_k3f9").test("old", Outcome.PASSED, null);
        SampleRun.in(root, "2026-11-25_080000_00aa").test("new", Outcome.PASSED, null);

        assertThat(RunReader.read(root).tests()).extracting(TestResult::name).containsExactly("new");
    }

    @Test
    void a_folder_without_a_run_says_what_is_there_instead() throws Exception {
        Path file = Files.createFile(Files.createDirectory(root.resolve("full")).resolve("pom.xml"));
        Path empty = Files.createDirectory(root.resolve("empty"));

        assertThatThrownBy(() -> RunReader.read(root.resolve("nowhere")))
                .isInstanceOf(ResultsFormatException.class)
                .hasMessageContainingAll("nowhere: there is no such folder", "Run the tests with Verbale");
        assertThatThrownBy(() -> RunReader.read(file)).hasMessageContaining("this is a file");
        assertThatThrownBy(() -> RunReader.read(empty)).hasMessageContaining("It is empty");
        assertThatThrownBy(() -> RunReader.read(file.getParent())).hasMessageContaining("It has no run.json");
    }

    @Test
    void every_attempt_is_its_tests_whatever_it_came_to_and_whoever_made_it() throws Exception {
        Run read = SampleRun.in(root, "run")
                .test("twice", Outcome.PASSED, null)
                .test("worse", Outcome.PASSED, null)
                .test("worse", Outcome.FAILED, SampleRun.failure("E", "rain"))
                .write(new JournalEnded(9, 0, Map.of(), 0))
                .worker("worker-2", SampleRun.WALL.plusSeconds(60))
                .test("twice", Outcome.PASSED, null)
                .read();

        assertThat(read.counts().all()).isEqualTo(2);
        assertThat(read.tests().stream().filter(TestResult::superseded))
                .extracting(TestResult::name)
                .containsExactly("twice", "worse");
        assertThat(read.needingAttention())
                .extracting(test -> test.attempt().number())
                .containsExactly(2);
        assertThat(read.flaky()).isEmpty();
    }

    @Test
    void a_class_whose_set_up_was_tried_again_counts_as_it_came_out_last() throws Exception {
        Failure failure = SampleRun.failure("E", "no glass");
        Run read = SampleRun.in(root, "run")
                .write(
                        ContainerStarted.of(1, 1, "c", "Greenhouse")
                                .className("sample.G")
                                .build(),
                        ContainerEnded.of(2, 1, Outcome.ERRORED)
                                .failure(failure)
                                .notRun(4)
                                .build(),
                        ContainerStarted.of(3, 2, "d", "Shed")
                                .className("sample.S")
                                .build(),
                        ContainerEnded.of(4, 2, Outcome.ERRORED)
                                .failure(failure)
                                .build(),
                        ContainerStarted.of(5, 3, "c", "Greenhouse")
                                .className("sample.G")
                                .build(),
                        ContainerEnded.of(6, 3, Outcome.ERRORED)
                                .failure(failure)
                                .notRun(3)
                                .build(),
                        ContainerStarted.of(7, 4, "d", "Shed")
                                .className("sample.S")
                                .build(),
                        ContainerEnded.of(8, 4, Outcome.PASSED).build())
                .read();

        assertThat(read.brokenContainers())
                .singleElement()
                .satisfies(c -> assertThat(c.notRun()).isEqualTo(3));
    }

    @Test
    void steps_in_each_other_are_read_at_any_depth_and_folded_at_a_hundred() throws Exception {
        SampleRun run = SampleRun.in(root, "run")
                .write(TestStarted.of(0, 1, "k", "deep").thread("main").build());
        int deepest = 100_000;
        for (int i = 0; i < deepest; i++)
            run.write(
                    StepStarted.of(i, i + 2, StepKind.ACTION, "s" + i).in(i + 1).build());
        run.write(LogWritten.text(deepest, deepest + 1, "at the bottom", null));
        run.write(TestEnded.of(deepest + 1, 1, Outcome.PASSED).build());

        TestResult read = run.read().tests().get(0);

        int depth = 0;
        List<Entry> entries = read.entries();
        while (entries.get(0) instanceof Entry.StepEntry step && !step.entries().isEmpty()) {
            assertThat(step.duration()).isGreaterThanOrEqualTo(Duration.ofNanos((deepest - depth) * 1_000L));
            entries = step.entries();
            depth++;
        }
        assertThat(depth).isEqualTo(OpenNode.DEEPEST);
        assertThat(entries).hasSize(deepest - depth + 2);
        assertThat(((Entry.LogEntry) entries.get(entries.size() - 2)).text()).isEqualTo("at the bottom");
        assertThat(((Entry.LogEntry) entries.get(entries.size() - 1)).text())
                .startsWith("99900 steps lie deeper than 100 in each other");
    }

    @Test
    void what_a_run_lacks_is_in_its_headline() throws Exception {
        SampleRun run = SampleRun.in(root, "run")
                .test("fine", Outcome.PASSED, null)
                .write(
                        new EventsMissed(9, Map.of("step-ended", 10L)),
                        new EventsMissed(10, Map.of("step-ended", 12L, "log", 1L)));

        assertThat(Headline.of(run.readOpen()))
                .isEqualTo(
                        "The one test passed. The run is incomplete: 13 events could not be recorded (1 log, 12 step-ended); "
                                + "the journal of worker-1 was never closed, as when a JVM is killed or still runs.");
        assertThat(Headline.of(run.read())).isEqualTo("The one test passed.");
    }

    @Test
    void a_failure_that_is_referred_to_is_the_one_that_was_written_down() throws Exception {
        Failure inner = Failure.of("E", "E: wind").id(3).message("wind").build();
        Failure all = Failure.of("Many", "Many")
                .id(4)
                .message("2")
                .gathered(List.of(Failure.reference(3), Failure.reference(9)))
                .build();
        Run read = SampleRun.in(root, "run")
                .write(
                        TestStarted.of(1, 1, "k", "n").thread("main").build(),
                        StepStarted.of(2, 2, StepKind.ACTION, "s").in(1).build(),
                        StepEnded.of(3, 2, Outcome.ERRORED).failure(inner).build(),
                        TestEnded.of(4, 1, Outcome.ERRORED).failure(all).build())
                .read();

        Failure failure = read.tests().get(0).failure();
        assertThat(failure).isNotNull();
        assertThat(failure.gathered()).hasSize(2).first().isEqualTo(inner);
        assertThat(failure.gathered().get(1).message()).contains("is missing");
        assertThat(read.problems())
                .singleElement()
                .extracting(Problem::what)
                .asString()
                .contains("the failure 9");
    }

    @Test
    void a_description_waits_for_its_test_and_is_said_where_none_comes() throws Exception {
        Run read = SampleRun.in(root, "run")
                .write(
                        new AboutStated(1, 1, About.of().text("early").build()),
                        new AboutStated(1, 7, About.of().text("nobody's").build()),
                        TestStarted.of(2, 1, "k", "n").thread("main").build(),
                        TestEnded.of(3, 1, Outcome.PASSED).build())
                .read();

        assertThat(read.tests().get(0).about().text()).isEqualTo("early");
        assertThat(read.problems())
                .extracting(Problem::sentence)
                .containsExactly(
                        "journals/worker-1.jsonl:3: says what 7 is about, whose beginning is not in this journal; it is left out");
    }

    @Test
    void where_a_test_stood_that_was_cut_off_between_two_steps_is_told_by_the_one_that_ended() throws Exception {
        Run read = SampleRun.in(root, "run")
                .write(
                        TestStarted.of(1, 1, "k", "cut").thread("main").build(),
                        StepStarted.of(2, 2, StepKind.ACTION, "Open").in(1).build(),
                        StepEnded.of(3, 2, Outcome.PASSED).build(),
                        TestStarted.of(1, 3, "l", "in").thread("main").build(),
                        StepStarted.of(2, 4, StepKind.ACTION, "Swap").in(3).build(),
                        StepStarted.of(3, 5, StepKind.ACTION, "Choose").in(4).build(),
                        StepEnded.of(4, 5, Outcome.PASSED).build())
                .readOpen();

        assertThat(read.tests())
                .extracting(test -> LastMoment.of(test.entries()).sentence())
                .containsExactly("last step that ended: Open", "last in: Swap; after: Choose");
    }

    /** What a stranger may put into a run: each costs itself, and nothing else. */
    @Test
    void whatever_lies_in_the_place_of_a_journal_costs_itself_alone() throws Exception {
        SampleRun run = SampleRun.in(root, "run").test("there", Outcome.PASSED, null);
        Path journals = run.path().resolve("journals");
        Path elsewhere = Files.writeString(root.resolve("elsewhere.jsonl"), "{}");
        Files.createDirectory(journals.resolve("folder.jsonl"));
        Files.createSymbolicLink(journals.resolve("link.jsonl"), elsewhere);
        assertThat(new ProcessBuilder("mkfifo", journals.resolve("pipe.jsonl").toString())
                        .start()
                        .waitFor())
                .isZero();

        Run read = run.read();

        assertThat(read.tests()).hasSize(1);
        assertThat(read.problems())
                .extracting(Problem::sentence)
                .contains(
                        "journals/folder.jsonl: is no regular file and is not opened: it is left out",
                        "journals/link.jsonl: is no regular file and is not opened: it is left out",
                        "journals/pipe.jsonl: is no regular file and is not opened: it is left out");
    }

    /** Bytes of a real journal changed, cut out, doubled and swapped at random: read each time, and never an exception. */
    @Test
    void mutated_journals_are_read() throws Exception {
        SampleRun run = SampleRun.in(root, "run");
        for (int i = 0; i < 6; i++) run.test("t" + i % 4, Outcome.FAILED, SampleRun.failure("E", "rain \u2028"));
        run.write(
                TestStarted.of(1, 1, "k", "n").thread("main").tags(List.of("a")).build(),
                StepStarted.of(2, 2, StepKind.ACTION, "s").in(1).build(),
                AttachmentStored.of(
                                3,
                                2,
                                "p",
                                AttachmentKind.SCREENSHOT,
                                new StoredFile("tests/a/01-p.png", "image/png", 5, null))
                        .build(),
                new DataNamed(4, 1, "plot", "12"),
                new AboutStated(
                        4,
                        1,
                        About.of()
                                .text("about")
                                .severity("grave")
                                .owner("Ada")
                                .link(new About.Link("a", "https://b"))
                                .build()));
        run.read();
        Path journal = run.path().resolve("journals/worker-1.jsonl");
        byte[] whole = Files.readAllBytes(journal);
        byte[] description = Files.readAllBytes(run.path().resolve("run.json"));
        var random = new Random(20261126);
        for (int i = 0; i < (Boolean.getBoolean("verbale.night") ? 2_000 : 250); i++) {
            Files.write(journal, mutated(whole, random));
            Files.write(run.path().resolve("run.json"), i % 5 == 0 ? mutated(description, random) : description);

            Run read = run.readOpen();

            assertThat(Headline.of(read)).isNotEmpty();
            assertThat(FailureReason.of(read)).isNotNull();
        }
    }

    private static byte[] mutated(byte[] whole, Random random) {
        byte[] bytes = whole.clone();
        for (int times = 1 + random.nextInt(6); times > 0 && bytes.length > 40; times--) {
            int at = random.nextInt(bytes.length - 30);
            int length = 1 + random.nextInt(24);
            switch (random.nextInt(6)) {
                case 0 -> bytes[at] = (byte) random.nextInt(256);
                case 1 -> bytes[at] = (byte) "0123456789-\"{}[],:\\\n".charAt(random.nextInt(20));
                case 2 -> System.arraycopy(bytes, random.nextInt(bytes.length - length), bytes, at, length);
                case 3 -> bytes = Arrays.copyOf(bytes, bytes.length - random.nextInt(30));
                case 4 -> {
                    byte[] doubled = Arrays.copyOf(bytes, bytes.length + length);
                    System.arraycopy(bytes, at, doubled, at + length, bytes.length - at);
                    bytes = doubled;
                }
                default -> {
                    byte[] cut = Arrays.copyOf(bytes, bytes.length - length);
                    System.arraycopy(bytes, at + length, cut, at, bytes.length - at - length);
                    bytes = cut;
                }
            }
        }
        return bytes;
    }
}
