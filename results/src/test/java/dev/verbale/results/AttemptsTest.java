package dev.verbale.results;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.Failure;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Only what was run again is another attempt of a test; nothing that failed is covered by a namesake that passed. */
class AttemptsTest {

    private static final Failure SNAILS =
            SampleRun.failure("java.lang.AssertionError", "snails", "sample.BedTest.x(B.java:1)");

    @TempDir
    Path root;

    private SampleRun run;

    @BeforeEach
    void begin() throws IOException {
        run = SampleRun.in(root, "run");
    }

    private int id;

    /** Of the worker that was begun last, in milliseconds after all began. */
    private void record(String key, long from, long until, Outcome outcome) throws IOException {
        id++;
        String type = key.substring(0, key.indexOf('.'));
        run.write(
                TestStarted.of(from * 1_000, id, key, key)
                        .className(type)
                        .methodName("x")
                        .thread("main")
                        .build(),
                TestEnded.of(until * 1_000, id, outcome)
                        .failure(outcome.needsAttention() ? SNAILS : null)
                        .build());
    }

    private void worker(String name, String module) throws IOException {
        if (id > 0) run.write(new JournalEnded(100_000_000, 0, Map.of(), 0));
        run.worker(name, module, SampleRun.WALL);
    }

    private Run read() throws IOException {
        return run.read();
    }

    @Test
    void in_two_modules_it_is_two_tests() throws Exception {
        worker("worker-1", "beds");
        record("Smoke.x()", 0, 1, Outcome.FAILED);
        worker("worker-2", "shed/tools");
        record("Smoke.x()", 5, 6, Outcome.PASSED);

        Run read = read();

        assertThat(read.tests())
                .extracting(TestResult::id)
                .containsExactly("[beds] Smoke.x()", "[shed/tools] Smoke.x()");
        assertThat(read.tests()).extracting(TestResult::module).containsExactly("beds", "shed/tools");
        assertThat(read.needingAttention()).hasSize(1);
        assertThat(read.flaky()).isEmpty();
        assertThat(read.problems()).isEmpty();
    }

    @Test
    void a_jvm_that_runs_again_only_what_had_not_passed_makes_attempts() throws Exception {
        worker("worker-1", "");
        record("Smoke.x()", 0, 1, Outcome.FAILED);
        record("Bed.x()", 1, 2, Outcome.PASSED);
        worker("worker-2", "");
        record("Smoke.x()", 5, 6, Outcome.PASSED);

        Run read = read();

        assertThat(read.flaky()).hasSize(1);
        assertThat(read.needingAttention()).isEmpty();
        assertThat(read.problems()).isEmpty();
    }

    @Test
    void one_that_runs_other_tests_too_was_never_told_to_retry_and_the_worse_counts() throws Exception {
        worker("worker-1", "");
        record("Smoke.x()", 0, 1, Outcome.FAILED);
        worker("worker-2", "");
        record("Smoke.x()", 5, 6, Outcome.PASSED);
        record("Other.x()", 6, 7, Outcome.PASSED);

        Run read = read();

        assertThat(read.flaky()).isEmpty();
        assertThat(read.needingAttention()).extracting(TestResult::key).containsExactly("Smoke.x()");
        assertThat(read.counts().all()).isEqualTo(2);
        assertThat(read.problems())
                .singleElement()
                .satisfies(problem -> assertThat(problem.what())
                        .isEqualTo("1 test was recorded several times, and not because it was run again:"
                                + " the worse outcome counts. Smoke.x()"));
    }

    @Test
    void what_overlaps_in_time_is_no_attempt() throws Exception {
        worker("worker-1", "");
        record("Smoke.x()", 0, 10, Outcome.FAILED);
        record("Smoke.x()", 5, 6, Outcome.PASSED);

        assertThat(read().needingAttention()).hasSize(1);
    }

    @Test
    void a_retry_in_the_same_jvm_is_one_and_the_last_counts() throws Exception {
        worker("worker-1", "");
        for (Outcome outcome : List.of(Outcome.FAILED, Outcome.ERRORED, Outcome.PASSED, Outcome.PASSED))
            record("Smoke.x()", id * 2L, id * 2L + 1, outcome);

        Run read = read();

        assertThat(read.tests()).extracting(test -> test.attempt().number()).containsExactly(1, 2, 3, 4);
        assertThat(read.flaky()).as("a test, and not its attempts").hasSize(1);
        assertThat(read.counts().needingAttention()).isZero();
    }

    @Test
    void one_key_fifty_thousand_times_is_one_test() throws Exception {
        worker("worker-1", "");
        for (int i = 0; i < 50_000; i++)
            record("Smoke.x()", i, i + (i % 2 == 0 ? 1 : 500), i == 7 ? Outcome.FAILED : Outcome.PASSED);

        assertThat(read().counts().all()).isEqualTo(1);
    }

    /** Whatever was recorded: a test of which any record failed is green only where a later one is its attempt, by the rule. */
    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8})
    void generated_runs_are_judged_by_their_known_truth(int seed) throws Exception {
        var random = new Random(seed);
        Map<String, Outcome> truth = new HashMap<>();
        List<String> first = new ArrayList<>();
        worker("worker-1", "beds");
        for (int i = 0; i < 30; i++) {
            Outcome outcome = random.nextInt(3) == 0 ? Outcome.FAILED : Outcome.PASSED;
            String key = "C" + i + ".x()";
            record(key, i, i + 1, outcome);
            truth.put("[beds] " + key, outcome);
            if (outcome.equals(Outcome.FAILED)) first.add(key);
        }
        worker("worker-2", "beds"); // was told to run again what failed, and some of it passes now
        int at = 1_000;
        for (String key : first) {
            Outcome outcome = random.nextBoolean() ? Outcome.PASSED : Outcome.FAILED;
            record(key, at++, at, outcome);
            truth.put("[beds] " + key, outcome);
        }
        worker("worker-3", "shed"); // has namesakes of all, which pass
        for (int i = 0; i < 30; i++) {
            record("C" + i + ".x()", at++, at, Outcome.PASSED);
            truth.put("[shed] C" + i + ".x()", Outcome.PASSED);
        }
        worker("worker-4", "beds"); // a build of its own into the same run: covers nothing
        for (int i = 0; i < 40; i++) record("C" + i + ".x()", at++, at, Outcome.PASSED);
        for (int i = 30; i < 40; i++) truth.put("[beds] C" + i + ".x()", Outcome.PASSED);

        Run read = read();

        Map<String, Outcome> counted = new HashMap<>();
        for (TestResult test : read.tests())
            if (!test.superseded())
                assertThat(counted.put(test.key(), test.outcome())).isNull();
        assertThat(counted).isEqualTo(truth);
        assertThat(read.counts().all()).isEqualTo(truth.size());
        assertThat(read.problems()).hasSize(1);
    }
}
