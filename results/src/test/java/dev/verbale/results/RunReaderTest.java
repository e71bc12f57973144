package dev.verbale.results;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.offset;
import static org.assertj.core.api.Assertions.tuple;

import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.FactStated;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.NoteWritten;
import dev.verbale.event.Outcome;
import dev.verbale.event.PaperKept;
import dev.verbale.event.PaperPromised;
import dev.verbale.event.StepBudgeted;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepKind;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestDescribed;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.List;
import java.util.Map;
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

        Run read = run.read();

        assertThat(read.tests()).extracting(TestResult::name).containsExactly("first", "second");
        assertThat(read.started()).isEqualTo(SampleRun.WALL.minusSeconds(5));
        assertThat(read.took()).isEqualTo(Duration.ofMillis(5_200));
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
                        new ContainerStarted(1, 1, 0, "c", "Rota", "sample.Rota", null),
                        new TestStarted(1_000, 2, 1, "k", "hangs", null, null, "main", List.of()),
                        new StepStarted(2_000, 3, 2, StepKind.ACTION, "outer", null),
                        new StepStarted(3_000, 4, 3, StepKind.ACTION, "inner", null),
                        new NoteWritten(9_000, 4, "last word", null))
                .read();

        TestResult test = read.tests().get(0);
        var outer = (Entry.StepEntry) test.entries().get(0);
        var inner = (Entry.StepEntry) outer.entries().get(0);
        assertThat(List.of(test.outcome(), outer.outcome(), inner.outcome())).containsOnly(Outcome.UNFINISHED);
        assertThat(test.took()).isEqualTo(Duration.ofMillis(8));
        assertThat(inner.took()).isEqualTo(Duration.ofMillis(6));
        assertThat(read.brokenContainers()).isEmpty();
    }

    @Test
    void a_container_that_broke_is_found_with_what_it_cost() throws Exception {
        Run read = SampleRun.in(root, "run")
                .write(
                        new ContainerStarted(1, 1, 0, "c", "Greenhouse", "sample.G", null),
                        new ContainerEnded(2, 1, Outcome.ERRORED, null, SampleRun.failure("E", "no glass"), 4))
                .read();

        assertThat(read.brokenContainers()).singleElement().satisfies(c -> assertThat(c.notRun())
                .isEqualTo(4));
        assertThat(Headline.of(read))
                .isEqualTo("No test ran. \"Greenhouse\" broke outside its tests; 4 tests of it did not run.");
    }

    @Test
    void nothing_is_dropped_in_silence() throws Exception {
        SampleRun run = SampleRun.in(root, "run")
                .write(
                        new NoteWritten(1, 77, "orphan", null),
                        new StepEnded(2, 88, Outcome.PASSED, null, null),
                        new TestEnded(2, 99, Outcome.PASSED, null, null),
                        new PaperKept(
                                3, 0, "gone", PaperKept.ATTACHMENT, "text/plain", "tests/a/01-gone.txt", 5, null, 0),
                        new PaperKept(
                                4,
                                0,
                                "foreign",
                                PaperKept.ATTACHMENT,
                                "text/plain",
                                "../../../etc/hostname",
                                5,
                                null,
                                0),
                        new JournalEnded(5, 3, Map.of("NoteWritten", 3L), 0));
        Files.writeString(
                run.path().resolve("journals/worker-1.jsonl"),
                "{\"event\":\"retry\",\"at\":6}\n{\"ev",
                StandardOpenOption.APPEND);

        Run read = run.read();

        assertThat(read.entries()).hasSize(3);
        assertThat(((Entry.PaperEntry) read.entries().get(1)).file()).isNull();
        assertThat(((Entry.PaperEntry) read.entries().get(2)).file()).isNull();
        assertThat(read.problems())
                .extracting(Problem::sentence)
                .containsExactly(
                        "journals/worker-1.jsonl:2: belongs to 77, whose beginning is not in this journal; it is shown with the run",
                        "journals/worker-1.jsonl:3: ends 88, whose beginning is not in this journal",
                        "journals/worker-1.jsonl:4: ends 99, whose beginning is not in this journal",
                        "journals/worker-1.jsonl:5: the paper 'tests/a/01-gone.txt' is missing",
                        "journals/worker-1.jsonl:6: the paper '../../../etc/hostname' lies outside the run folder and is left out",
                        "journals/worker-1.jsonl:8: unknown event 'retry'",
                        "journals/worker-1.jsonl:9: torn: the journal ends in the middle of a line",
                        "journals/worker-1.jsonl: 3 events are missing, they could not be written: {NoteWritten=3}");
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

        assertThat(read.counts().all()).isEqualTo(5);
        assertThat(read.needingAttention()).extracting(TestResult::address).containsExactly("sample.never()~2");
        assertThat(Headline.of(read))
                .startsWith("1 of 5 tests did not pass: 1 failed. They have one cause.")
                .endsWith("1 test passed only when run again.");
    }

    @Test
    void what_is_said_about_a_test_and_its_steps_is_there() throws Exception {
        Run read = SampleRun.in(root, "run")
                .write(
                        new TestStarted(1, 1, 0, "k", "n", null, null, "main", List.of()),
                        new TestDescribed(2, 1, "about", null, "Ada", List.of(new TestDescribed.Link("a", null))),
                        new TestDescribed(3, 1, null, "grave", null, List.of(new TestDescribed.Link("b", "https://b"))),
                        new StepStarted(4, 2, 1, StepKind.ACTION, "slow", null),
                        new StepBudgeted(4, 2, 1_000),
                        new StepEnded(5_004, 2, Outcome.PASSED, null, null),
                        new PaperPromised(6_000, 1, 7, "kept", "attachment"),
                        new PaperPromised(6_000, 1, 8, "forgotten", "attachment"),
                        new TestEnded(7_000, 1, Outcome.PASSED, null, null),
                        new PaperKept(9_000, 1, "kept", "attachment", "text/plain", "run/01-kept.txt", 3, "ab", 7),
                        new JournalEnded(10_000, 0, Map.of(), 21))
                .read();

        TestResult test = read.tests().get(0);
        assertThat(test.about().text()).isEqualTo("about");
        assertThat(test.about().severity()).isEqualTo("grave");
        assertThat(test.about().links()).hasSize(2);
        var step = (Entry.StepEntry) test.entries().get(0);
        assertThat(step.budget()).isEqualTo(Duration.ofMillis(1)).isLessThan(step.took());
        assertThat(test.entries().stream().filter(entry -> entry instanceof Entry.PaperEntry))
                .extracting(entry -> ((Entry.PaperEntry) entry).name() + " " + ((Entry.PaperEntry) entry).came())
                .containsExactly("forgotten false", "kept true");
        assertThat(read.cost()).isEqualTo(0.003, offset(0.0001));
    }

    @Test
    void a_newer_format_is_said_and_read_as_far_as_it_is_known() throws Exception {
        SampleRun run = SampleRun.in(root, "run").test("known", Outcome.PASSED, null);
        Path journal = run.path().resolve("journals/worker-1.jsonl");
        Files.writeString(journal, Files.readString(journal).replace("\"format\":1", "\"format\":2"));

        Run read = run.read();

        assertThat(read.tests()).hasSize(1);
        assertThat(read.problems())
                .singleElement()
                .extracting(Problem::sentence)
                .asString()
                .contains("worker-1.jsonl:1: the journal has format 2", "newer Verbale");
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
}
