package dev.verbale.results;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import dev.verbale.event.TestStarted;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Path;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a run means: reasons, the plain sentence, durations. */
class AnalysisTest {

    private static final String OWN = "sample.RotaTest.swaps(RotaTest.java:31)";

    @TempDir
    Path root;

    @Test
    void failures_of_one_reason_are_told_once_whatever_numbers_and_values_they_name() throws Exception {
        Run run = SampleRun.in(root, "run")
                .test("a", Outcome.ERRORED, SampleRun.failure("Timeout", "no response on port 40123 from 'shed'", OWN))
                .test("b", Outcome.FAILED, SampleRun.failure("Assertion", "expected: <1> but was: <2>", OWN))
                .test(
                        "c",
                        Outcome.ERRORED,
                        SampleRun.failure("Timeout", "no response on port 8080 from 'shed'", "sample.B.b(B.java:2)"))
                .test(
                        "d",
                        Outcome.FAILED,
                        SampleRun.failure("Assertion", "expected: <3> but was: <4>", "sample.B.b(B.java:2)"))
                .test("e", Outcome.PASSED, null)
                .read();

        assertThat(FailureReason.of(run))
                .extracting(FailureReason::title, reason -> reason.tests().size())
                .containsExactly(
                        tuple("no response on port 40123 from 'shed'", 2),
                        tuple("b: expected: <1> but was: <2>", 1),
                        tuple("d: expected: <3> but was: <4>", 1));
        assertThat(FailureReason.of(run).get(1).frame()).isEqualTo(OWN);
        assertThat(Headline.of(run)).isEqualTo("4 of 5 tests did not pass: 2 failed, 2 errored, for 3 reasons.");
    }

    @Test
    void a_message_that_begins_with_an_empty_line_is_titled_by_its_first_words() throws Exception {
        Run run = SampleRun.in(root, "run")
                .test("a", Outcome.FAILED, SampleRun.failure("E", "\nExpecting actual:\n  1"))
                .test("b", Outcome.FAILED, SampleRun.failure("sample.Silent", ""))
                .read();

        assertThat(FailureReason.of(run))
                .extracting(FailureReason::title)
                .containsExactly("a: Expecting actual: 1", "b: sample.Silent");
    }

    @Test
    void a_message_that_begins_with_a_count_is_titled_by_what_it_counts() throws Exception {
        String inLibrary = "org.codehaus.groovy.reflection.CachedConstructor.invoke(CachedConstructor.java:73)";
        Run run = SampleRun.in(root, "run")
                .test(
                        "a",
                        Outcome.FAILED,
                        SampleRun.failure("E", "1 expectation failed.\nExpected status code <201>", inLibrary, OWN))
                .test("b", Outcome.FAILED, SampleRun.failure("E", "2 checks failed:\n  keeper: no Ada", inLibrary, OWN))
                .read();

        assertThat(FailureReason.of(run))
                .extracting(FailureReason::title, FailureReason::frame)
                .containsExactly(tuple("Expected status code <201>", OWN), tuple("keeper: no Ada", OWN));
    }

    /** Whatever language it is written in, and not what an adapter said that it is a library's. */
    @Test
    void the_frame_of_a_failure_is_the_nearest_of_the_suites_own() throws Exception {
        SampleRun run = SampleRun.in(root, "run");
        run.test(
                "a",
                Outcome.FAILED,
                SampleRun.failure("E", "a", "org.library.Asks.that(Asks.java:3)", "sample.B.b(B.kt:7)"));
        run.test(
                "b",
                Outcome.FAILED,
                SampleRun.failure("E", "b", "kotlin.Result.get(Result.kt:1)", "sample.C.c(C.groovy:8)"));
        run.test(
                "c",
                Outcome.FAILED,
                SampleRun.failure(
                        "E", "c", "java.base/java.util.List.of(List.java:1)", "app//sample.D$1.<init>(D.java:9)"));
        run.test("d", Outcome.FAILED, SampleRun.failure("E", "d", "org.library.Asks.that(Asks.java:3)"));

        assertThat(FailureReason.of(run.read()))
                .extracting(FailureReason::frame)
                .containsExactly("sample.B.b(B.kt:7)", "sample.C.c(C.groovy:8)", "sample.D$1.<init>(D.java:9)", "");
    }

    @Test
    void calm_runs_are_told_calmly() throws Exception {
        SampleRun one = SampleRun.in(root, "one").test("a", Outcome.PASSED, null);
        assertThat(Headline.of(one.read())).isEqualTo("The one test passed.");
        one.test("b", Outcome.PASSED, null);
        assertThat(Headline.of(one.read())).isEqualTo("All 2 tests passed.");
        one.test("c", Outcome.SKIPPED, null);
        assertThat(Headline.of(one.read())).isEqualTo("2 of 3 tests passed, and none failed (1 skipped).");
    }

    @Test
    void large_numbers_can_be_read() throws Exception {
        SampleRun run = SampleRun.in(root, "run");
        for (int i = 0; i < 1_200; i++) run.test("t" + i, Outcome.PASSED, null);

        assertThat(Headline.of(run.read())).isEqualTo("All 1,200 tests passed.");
    }

    @Test
    void an_unfinished_test_needs_attention_and_is_a_reason_of_its_own() throws Exception {
        SampleRun run = SampleRun.in(root, "run").test("a", Outcome.FAILED, SampleRun.failure("E", "x", OWN));
        run.write(TestStarted.of(1, 1, "k", "hangs").thread("main").build());

        assertThat(Headline.of(run.read()))
                .isEqualTo("2 of 2 tests did not pass: 1 failed, 1 unfinished, for 2 reasons.");
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0 µs",
        "340, 340 µs",
        "12999, 12 ms",
        "1400000, 1.4 s",
        "9949999, 9.9 s",
        "9950000, 10 s",
        "17400000, 17 s",
        "125000000, 2 min 05 s",
        "11220000000, 3 h 07 min"
    })
    void durations_are_as_precise_as_they_are_useful(long micros, String text) {
        assertThat(DurationText.of(Duration.ofNanos(micros * 1_000))).isEqualTo(text);
    }
}
