package dev.verbale.results.reason;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.Failure;
import dev.verbale.results.SampleRun;
import dev.verbale.results.TestResult;
import dev.verbale.results.brief.BriefOptions;
import dev.verbale.results.brief.FailureBrief;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/**
 * Whatever a failure says, its reason is found: what repeats itself thousands of times fills no stack, and is no work without an end.
 * The time is for what would take hours.
 */
@Timeout(value = 60, unit = TimeUnit.SECONDS, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class HostileMessageTest {

    private static final int LENGTH = Boolean.getBoolean("verbale.night") ? 8_000 : 4_000;
    private static final String UNITS = """
            m|1|.| |\\n|\\t|\\n\\n |{|[|<|"|'|\\|@|/|//|a/|a@|a.|a-|1.|1:|--|#, |a\\n|  a\\n|at |-> at a (|{"a":|ab1|a@a.|ffff|/tmp
            |expected: |expected <|- expected :|status |status but was |but was: |[a|$$Lambda|No enum constant a.|: |Expecting |to contain
            |2026-01-01|at a/|at a.b(|at a.b(A.java:1)\\n|Caused by: a.B: c\\n|"method":"a","selector":"|Locator: getByText(a)|.b()|waiting for locator(
            |; SQL statement:|Headers are:|\\u0000|\\u2028|\\ud83c\\udf31""";

    @TempDir
    Path root;

    static Stream<String> units() {
        return Stream.of(UNITS.replace("\n", "").split("\\|"))
                .map(unit -> unit.replace("\\n", "\n").replace("\\t", "\t"));
    }

    @ParameterizedTest
    @MethodSource("units")
    void a_message_that_repeats_itself_has_a_reason(String unit) throws Exception {
        String text = unit.repeat(LENGTH / unit.length());
        SampleRun run = SampleRun.in(root, "hostile");
        for (String type : List.of(
                "java.lang.AssertionError",
                "java.lang.IllegalStateException",
                "org.openqa.selenium.NoSuchElementException",
                "com.microsoft.playwright.TimeoutError"))
            run.test(type, Outcome.FAILED, SampleRun.failure(type, text, text, "sample.B.b(B.java:2)"));
        run.test("named by it", Outcome.FAILED, SampleRun.failure(text, "weeds"));
        run.test("compared", Outcome.FAILED, compared(text));

        List<FailureReason> reasons = FailureReason.of(run.read());

        assertThat(reasons.stream().flatMap(reason -> reason.tests().stream()).map(TestResult::name))
                .hasSize(6);
        for (FailureReason reason : reasons)
            for (TestResult test : reason.tests())
                assertThat(FailureBrief.of(run.read(), test, reason, BriefOptions.longest(5_000)))
                        .isNotNull();
    }

    private static Failure compared(String text) {
        return Failure.of("E", "E: " + text)
                .message(text)
                .expected(text)
                .actual(text + "a")
                .build();
    }
}
