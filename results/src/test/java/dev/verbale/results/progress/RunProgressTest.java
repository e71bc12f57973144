package dev.verbale.results.progress;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.ContainerStarted;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.folder.RunFolder;
import dev.verbale.results.SampleRun;
import dev.verbale.results.TestResult;
import dev.verbale.results.progress.RunProgress.Expectation;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.vocabulary.Outcome;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class RunProgressTest {

    @TempDir
    Path root;

    private static TestStarted begun(int id, String name) {
        return TestStarted.of(id * 1_000L, id, "k." + name, name)
                .className("s.T")
                .methodName(name)
                .thread("main")
                .build();
    }

    private static RunProgress progress(SampleRun sample) throws Exception {
        return RunProgress.of(sample.readOpen());
    }

    private static String sentence(RunProgress progress) {
        return progress.sentence(FailureReason.of(progress.ended()));
    }

    @Test
    void what_is_running_is_no_failure_and_the_sentence_says_so_far() throws Exception {
        SampleRun sample = SampleRun.in(root, "run")
                .test("a", Outcome.PASSED, null)
                .test("b", Outcome.FAILED, SampleRun.failure("java.lang.AssertionError", "no rain"))
                .write(begun(7, "waters"), begun(8, "digs"));

        RunProgress progress = progress(sample);

        assertThat(progress.isOver()).isFalse();
        assertThat(progress.running()).extracting(TestResult::name).containsExactlyInAnyOrder("waters", "digs");
        assertThat(progress.ended().tests()).extracting(TestResult::name).containsExactly("a", "b");
        assertThat(sentence(progress)).isEqualTo("So far 1 of 2 tests did not pass: 1 failed, for one reason.");
        assertThat(progress.ended().incomplete().isNothing())
                .as("it is not broken, it is going")
                .isTrue();
    }

    @Test
    void a_class_whose_tests_are_running_is_not_broken_and_a_line_that_is_being_written_is_not_torn() throws Exception {
        SampleRun sample = SampleRun.in(root, "run")
                .write(
                        ContainerStarted.of(1, 3, "k", "RotaTest")
                                .className("s.RotaTest")
                                .build(),
                        begun(4, "waters"));
        Path journal = new RunFolder(sample.path()).journal("worker-1");
        Files.write(journal, "{\"e\":\"lo".getBytes(StandardCharsets.UTF_8), StandardOpenOption.APPEND);

        RunProgress progress = progress(sample);

        assertThat(sample.readOpen().problems()).isNotEmpty();
        assertThat(progress.ended().problems()).isEmpty();
        assertThat(progress.ended().brokenContainers()).isEmpty();
        assertThat(sentence(progress)).isEqualTo("So far no test was recorded.");
    }

    @Test
    void a_test_without_an_end_in_a_closed_journal_is_a_failure_beside_one_that_runs_elsewhere() throws Exception {
        SampleRun sample = SampleRun.in(root, "run")
                .write(begun(4, "forgotten"), new JournalEnded(9_000, 0, Map.of(), 0))
                .worker("worker-2", SampleRun.WALL)
                .write(begun(5, "waters"));

        RunProgress progress = progress(sample);

        assertThat(progress.atWork()).containsExactly("worker-2");
        assertThat(progress.running()).extracting(TestResult::name).containsExactly("waters");
        assertThat(progress.ended().needingAttention())
                .extracting(TestResult::name)
                .containsExactly("forgotten");
    }

    @Test
    void when_all_journals_are_closed_it_is_the_run_as_it_is() throws Exception {
        SampleRun sample = SampleRun.in(root, "run")
                .test("a", Outcome.PASSED, null)
                .write(new JournalEnded(9_000, 0, Map.of(), 0));

        RunProgress progress = progress(sample);

        assertThat(progress.isOver()).isTrue();
        assertThat(sentence(progress)).isEqualTo("The one test passed.");
        assertThat(progress.share(Expectation.NONE)).isEqualTo(1);
    }

    @Test
    void the_share_goes_by_tests_then_by_time_and_is_never_whole_before_the_end() throws Exception {
        SampleRun sample =
                SampleRun.in(root, "run").test("a", Outcome.PASSED, null).test("b", Outcome.PASSED, null);

        RunProgress progress = progress(sample);
        Duration now = progress.ended().duration();

        assertThat(progress.share(new Expectation(8, Duration.ofHours(1)))).isEqualTo(0.25);
        assertThat(progress.share(new Expectation(0, now.multipliedBy(2)))).isEqualTo(0.5);
        assertThat(progress.share(new Expectation(1, Duration.ZERO))).isEqualTo(0.99);
        assertThat(progress.share(Expectation.NONE)).isZero();
    }
}
