package dev.verbale.history.compare;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.event.LogWritten;
import dev.verbale.results.Entry;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Where a test first went otherwise. */
class FirstDifferenceTest {

    @Test
    void the_innermost_first_thing_that_went_otherwise_is_found_with_the_lines_before_it() {
        TestResult good = test(
                line("open"),
                step("Open the rota", Outcome.PASSED, exchange("GET", "http://localhost:1/rota", 200)),
                step(
                        "Swap",
                        Outcome.PASSED,
                        line("asks for Monday"),
                        exchange("POST", "http://localhost:1/api/swaps?x=1", 201),
                        step("See", Outcome.PASSED)));
        TestResult bad = test(
                line("open, slowly"),
                step("Open the rota", Outcome.PASSED, exchange("GET", "http://localhost:2/rota", 200)),
                step(
                        "Swap",
                        Outcome.FAILED,
                        line("asks for Tuesday"),
                        exchange("POST", "http://localhost:2/api/swaps?x=2", 503)));

        FirstDifference difference = FirstDifference.of(good, bad).orElseThrow();

        assertThat(difference.sentence()).isEqualTo("Swap › POST /api/swaps: 201, now 503");
        assertThat(difference.linesBefore()).containsExactly("open", "asks for Monday");
        assertThat(difference.linesAfter()).containsExactly("open, slowly", "asks for Tuesday");
        assertThat(FirstDifference.of(good, good)).isEmpty();
    }

    @Test
    void what_a_run_makes_up_in_a_name_is_no_difference() {
        TestResult then = test(
                step("open http://127.0.0.1:4001/shed", Outcome.PASSED),
                step("see 0f8fad5b-d9cb-469f-a165-70867728950e", Outcome.PASSED),
                step("see 3c1f0a9b8d7e6f50", Outcome.PASSED));
        TestResult now = test(
                step("open http://localhost:81/shed", Outcome.PASSED),
                step("see 7c9e6679-7425-40de-944b-e07fc1f90ae7", Outcome.PASSED),
                step("see aa1f0a9b8d7e6f51ff", Outcome.PASSED));

        assertThat(FirstDifference.of(then, now)).isEmpty();
        assertThat(FirstDifference.of(
                        test(step("open http://a/shed", Outcome.PASSED)),
                        test(step("open http://a/rota", Outcome.PASSED))))
                .isPresent();
        assertThat(FirstDifference.of(test(step("take 3", Outcome.PASSED)), test(step("take 4", Outcome.PASSED))))
                .isPresent();
    }

    @Test
    void responses_are_compared_as_long_as_both_ask_for_the_same() {
        TestResult then = test(
                answered("GET", "http://a:1/plots/7", 200, "{\"m2\":7.5,\"owner\":\"Ada\"}"),
                answered("GET", "http://a:1/plots/8", 200, "{}"),
                answered("GET", "http://a:1/rota", 200, "{\"free\":1}"));
        TestResult now = test(
                answered("GET", "http://b:2/plots/7", 200, "{\"m2\":\"7.5 m²\",\"owner\":\"Ada\"}"),
                answered("GET", "http://b:2/plots/8", 500, "no json"),
                answered("GET", "http://b:2/seeds", 200, "{\"free\":2}"));

        TestComparison comparison = TestComparison.of(then, now);

        assertThat(comparison.exchanges())
                .containsExactly(
                        new TestComparison.ExchangeDifference(
                                "GET /plots/7", 200, 200, List.of(new JsonDifference("$.m2", "7.5", "\"7.5 m²\""))),
                        new TestComparison.ExchangeDifference("GET /plots/8", 200, 500, List.of()));
        assertThat(comparison.screenshotAfter()).isNull();
    }

    @Test
    void a_value_that_the_failure_tells_of_comes_before_the_check_that_it_failed() {
        TestResult passed = test(
                answered(
                        "GET",
                        "http://a:1/weather",
                        200,
                        "{\"id\":8,\"rain\":2,\"celsius\":17,\"at\":\"2026-12-01T08:00:00Z\"}"),
                check("celsius", Outcome.PASSED));
        TestResult failed = failed(
                "Expecting celsius 0 to be between 10 and 25",
                answered(
                        "GET",
                        "http://a:1/weather",
                        200,
                        "{\"id\":0,\"rain\":0,\"celsius\":0,\"at\":\"2026-12-01T08:00:09Z\"}"),
                check("celsius", Outcome.FAILED));

        FirstDifference difference = FirstDifference.of(passed, failed).orElseThrow();

        assertThat(difference.sentenceBeside(2)).isEqualTo("GET /weather: $.celsius: 0, in attempt 2 17");
        assertThat(difference.sentence()).isEqualTo("GET /weather: $.celsius: 17, now 0");
    }

    @Test
    void a_value_that_nothing_tells_of_comes_behind_what_went_otherwise() {
        TestResult one =
                test(answered("GET", "http://a:1/rota", 200, "{\"mood\":\"calm\"}"), step("See", Outcome.PASSED));
        TestResult other = failed(
                "no such element",
                answered("GET", "http://a:1/rota", 200, "{\"mood\":\"wild\"}"),
                step("See", Outcome.FAILED));
        TestResult alike = failed(
                "no such element",
                answered("GET", "http://a:1/rota", 200, "{\"mood\":\"wild\"}"),
                step("See", Outcome.PASSED));

        assertThat(FirstDifference.of(one, other).orElseThrow().sentence()).isEqualTo("See: passed, now failed");
        assertThat(FirstDifference.of(one, alike).orElseThrow().sentence())
                .isEqualTo("GET /rota: $.mood: \"calm\", now \"wild\"");
    }

    @Test
    void what_is_made_anew_for_each_run_is_no_difference() {
        for (String[] values : new String[][] {
            {"{\"id\":1}", "{\"id\":2}"},
            {"{\"plotId\":1}", "{\"plotId\":2}"},
            {"{\"order_id\":1}", "{\"order_id\":2}"},
            {"{\"createdAt\":1,\"token\":\"a\"}", "{\"createdAt\":1,\"token\":\"b\"}"},
            {"{\"day\":\"2026-11-30\"}", "{\"day\":\"2026-12-01\"}"},
            {"{\"x\":1764576000000}", "{\"x\":1764576000999}"},
            {"{\"self\":\"http://a:1/x\"}", "{\"self\":\"http://a:2/x\"}"}
        }) {
            TestResult one = test(answered("GET", "http://a/x", 200, values[0]));
            TestResult other = failed("expected 1 but was 2", answered("GET", "http://a/x", 200, values[1]));

            assertThat(FirstDifference.of(one, other)).as(values[0]).isEmpty();
        }
        TestResult valid = test(answered("GET", "http://a/x", 200, "{\"valid\":true}"));
        assertThat(FirstDifference.of(valid, test(answered("GET", "http://a/x", 200, "{\"valid\":false}"))))
                .isPresent();
    }

    private static Entry check(String name, Outcome outcome) {
        return new Entry.CheckEntry(Instant.EPOCH, name, outcome, null, 0);
    }

    private static TestResult failed(String message, Entry... entries) {
        TestResult test = test(entries);
        return new TestResult(
                test.identity(),
                test.attempt(),
                new TestResult.End(
                        Outcome.FAILED,
                        null,
                        Failure.of("E", "").message(message).build(),
                        List.of()),
                test.course(),
                test.entries());
    }

    private static Entry answered(String method, String url, int status, String body) {
        var content = new ExchangeMade.Body("application/json", 1, 1, body, false, null, List.of(), null);
        return new Entry.ExchangeEntry(
                Instant.EPOCH,
                ExchangeMade.of(0, new ExchangeMade.Request(method, url, List.of(), null))
                        .client("c")
                        .response(new ExchangeMade.Response(status, List.of(), content))
                        .timing(ExchangeMade.Timing.UNKNOWN)
                        .build(),
                Map.of());
    }

    @Test
    void a_step_that_is_missing_other_or_new_is_told_so() {
        TestResult one = test(step("a", Outcome.PASSED), step("b", Outcome.PASSED));

        assertThat(FirstDifference.of(one, test(step("a", Outcome.PASSED)))
                        .orElseThrow()
                        .sentence())
                .isEqualTo("b: passed, which did not happen now");
        assertThat(FirstDifference.of(test(step("a", Outcome.PASSED)), one)
                        .orElseThrow()
                        .sentence())
                .isEqualTo("b: passed, which did not happen before");
        assertThat(FirstDifference.of(one, test(step("a", Outcome.PASSED), step("c", Outcome.FAILED)))
                        .orElseThrow()
                        .sentence())
                .isEqualTo("b: passed, now c: failed");
        assertThat(FirstDifference.of(one, test(step("a", Outcome.ERRORED)))
                        .orElseThrow()
                        .sentence())
                .isEqualTo("a: passed, now errored");
    }

    private static TestResult test(Entry... entries) {
        return new TestResult(
                new TestResult.Identity("k", "", "n", List.of(), null, null, List.of(), About.NOTHING, null),
                TestResult.Attempt.ONLY,
                new TestResult.End(Outcome.PASSED, null, null, List.of()),
                new TestResult.Course(Instant.EPOCH, Duration.ZERO, "w", "main"),
                List.of(entries));
    }

    private static Entry step(String name, Outcome outcome, Entry... inside) {
        return new Entry.StepEntry(
                Instant.EPOCH,
                StepKind.ACTION,
                name,
                outcome,
                Duration.ZERO,
                null,
                null,
                null,
                null,
                null,
                List.of(inside));
    }

    private static Entry line(String text) {
        return new Entry.LogEntry(Instant.EPOCH, LogWritten.of(0, 0, text).build());
    }

    private static Entry exchange(String method, String url, int status) {
        return new Entry.ExchangeEntry(
                Instant.EPOCH,
                ExchangeMade.of(0, new ExchangeMade.Request(method, url, List.of(), null))
                        .client("client")
                        .response(new ExchangeMade.Response(status, List.of(), null))
                        .timing(ExchangeMade.Timing.UNKNOWN)
                        .build(),
                Map.of());
    }
}
