package dev.verbale.results;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.CheckMade;
import dev.verbale.event.Event;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Which checks are about which exchange. */
class ExchangeChecksTest {

    private static final Failure NO_BASIL = SampleRun.failure("AssertionError", "no basil\nin the shed");

    @TempDir
    Path root;

    @Test
    void a_check_is_about_the_exchange_that_it_names_or_that_was_over_last() throws Exception {
        assertThat(checks(
                        Outcome.PASSED,
                        null,
                        exchange(11, 10, 5),
                        exchange(12, 20, 40),
                        check(30, "early", 0),
                        check(70, "late", 0),
                        check(80, "named", 11)))
                .as("the second was asked before the early check, and answered after it")
                .containsEntry(11, List.of("early", "named"))
                .containsEntry(12, List.of("late"));
    }

    @Test
    void what_a_browser_shows_afterwards_is_not_about_the_exchange() throws Exception {
        assertThat(checks(
                        Outcome.PASSED,
                        null,
                        exchange(11, 10, 5),
                        step(20, 3, StepKind.BROWSER),
                        check(30, "title", 0)))
                .isEmpty();
        assertThat(checks(
                        Outcome.PASSED, null, step(5, 3, StepKind.BROWSER), exchange(11, 10, 5), check(30, "seed", 0)))
                .containsEntry(11, List.of("seed"));
    }

    @Test
    void the_assertion_that_ended_the_test_counts_once() throws Exception {
        assertThat(checks(Outcome.FAILED, NO_BASIL, exchange(11, 10, 5)))
                .containsEntry(11, List.of("afterwards: no basil"));
        assertThat(checks(Outcome.FAILED, NO_BASIL, exchange(11, 10, 5), failing(30, "seed", NO_BASIL)))
                .as("told by a check")
                .containsEntry(11, List.of("seed"));
        assertThat(checks(Outcome.ERRORED, NO_BASIL, exchange(11, 10, 5)))
                .as("no assertion")
                .isEmpty();
        Failure several = Failure.of("ChecksFailed", "at b")
                .message("1 check failed")
                .gathered(List.of(NO_BASIL))
                .build();
        assertThat(checks(Outcome.FAILED, several, exchange(11, 10, 5)))
                .as("of checks that were told before")
                .isEmpty();
    }

    @Test
    void the_assertion_is_about_the_response_that_has_the_value_it_found() throws Exception {
        List<Event> all = List.of(
                answered(11, 10, "{\"plot\":17,\"crop\":\"kale\",\"kilos\":6.05}"),
                answered(12, 20, "{\"plot\":170,\"crop\":\"kale soup\",\"ok\":true}"),
                answered(13, 30, "6.0"));

        assertThat(ofAssertion("17", all)).isEqualTo("11 x");
        assertThat(ofAssertion("kale", all)).isEqualTo("11 x");
        assertThat(ofAssertion("6.0", all)).as("the whole of a body").isEqualTo("13 x");
        assertThat(ofAssertion("200", all)).as("a status, of the last").isEqualTo("13 x");
        for (String nowhere :
                List.of("kal", "7", "true", "", "null", "soup", "6.05}", "[", "a.*", "(", "1".repeat(2_000)))
            assertThat(ofAssertion(nowhere, all)).as(nowhere).isEqualTo("13 afterwards: x");
        for (String message :
                List.of("expected: <18> but was: <17>", "Expected: 18\n  Actual: 17\n", "wanted [18], but was [17]."))
            assertThat(checks(Outcome.FAILED, SampleRun.failure("AssertionError", message), all))
                    .as(message)
                    .containsOnlyKeys(11);
    }

    private String ofAssertion(String found, List<Event> exchanges) throws Exception {
        Failure failure = Failure.of("AssertionError", "at b")
                .message("x")
                .expected("18")
                .actual(found)
                .build();
        return checks(Outcome.FAILED, failure, exchanges).entrySet().stream()
                .map(one -> one.getKey() + " " + String.join(", ", one.getValue()))
                .collect(java.util.stream.Collectors.joining("; "));
    }

    private static Event answered(int id, long at, String body) {
        var content = new ExchangeMade.Body(
                "application/json", body.length(), body.length(), body, false, null, List.of(), null);
        return ExchangeMade.of(at, new ExchangeMade.Request("GET", "http://orto/" + id, List.of(), null))
                .id(id)
                .in(1)
                .response(new ExchangeMade.Response(200, List.of(), content))
                .timing(new ExchangeMade.Timing(5L, Map.of()))
                .build();
    }

    @Test
    void what_a_tear_down_asked_has_nothing_to_do_with_the_failure_before_it() throws Exception {
        List<Event> tearDown = List.of(
                StepStarted.of(50, 4, StepKind.TEAR_DOWN, "bring it back").in(1).build(),
                made(12, 4, 55, 5),
                StepEnded.of(70, 4, Outcome.PASSED).build());

        assertThat(checks(Outcome.FAILED, NO_BASIL, exchange(11, 10, 5), tearDown))
                .containsOnlyKeys(11);
        assertThat(checks(Outcome.FAILED, NO_BASIL, tearDown)).isEmpty();
        List<Event> failsInIt = List.of(
                StepStarted.of(50, 4, StepKind.TEAR_DOWN, "bring it back").in(1).build(),
                StepStarted.of(52, 5, StepKind.ACTION, "look for it").in(4).build(),
                StepEnded.of(60, 5, Outcome.FAILED).failure(NO_BASIL).build(),
                StepEnded.of(70, 4, Outcome.FAILED).build());
        assertThat(checks(Outcome.FAILED, NO_BASIL, exchange(11, 10, 5), failsInIt))
                .as("it failed in a step of the tear-down")
                .isEmpty();
    }

    @Test
    void a_thousand_checks_of_a_thousand_exchanges_find_their_own() throws Exception {
        List<Event> all = new ArrayList<>();
        for (int i = 0; i < 1_000; i++) {
            all.addAll(exchange(100 + i, 100 + i * 10L, 4));
            all.addAll(check(106 + i * 10L, "of " + i, 0));
        }
        assertThat(checks(Outcome.PASSED, null, all)).hasSize(1_000).containsEntry(1_099, List.of("of 999"));
    }

    private int runs;

    @SafeVarargs
    private Map<Integer, List<String>> checks(Outcome outcome, Failure failure, List<Event>... events)
            throws Exception {
        SampleRun run = SampleRun.in(root, "run-" + runs++);
        run.write(TestStarted.of(1, 1, "key", "name")
                .className("sample.T")
                .methodName("name")
                .thread("main")
                .build());
        for (List<Event> some : events) run.write(some.toArray(Event[]::new));
        run.write(TestEnded.of(50_000, 1, outcome).failure(failure).build());
        var found = new java.util.TreeMap<Integer, List<String>>();
        ExchangeChecks.of(run.read().tests().get(0))
                .forEach((id, checks) -> found.put(
                        id, checks.stream().map(Entry.CheckEntry::name).toList()));
        return found;
    }

    private static List<Event> exchange(int id, long at, long micros) {
        return List.of(made(id, 1, at, micros));
    }

    private static ExchangeMade made(int id, int in, long at, long micros) {
        return ExchangeMade.of(at, new ExchangeMade.Request("GET", "http://orto/" + id, List.of(), null))
                .id(id)
                .in(in)
                .response(new ExchangeMade.Response(200, List.of(), null))
                .timing(new ExchangeMade.Timing(micros, Map.of()))
                .build();
    }

    private static List<Event> check(long at, String name, int exchange) {
        return List.of(
                CheckMade.of(at, 1, name, Outcome.PASSED).exchange(exchange).build());
    }

    private static List<Event> failing(long at, String name, Failure failure) {
        return List.of(
                CheckMade.of(at, 1, name, Outcome.FAILED).failure(failure).build());
    }

    private static List<Event> step(long at, int id, StepKind kind) {
        return List.of(
                StepStarted.of(at, id, kind, "click").in(1).build(),
                StepEnded.of(at + 1, id, Outcome.PASSED).build());
    }
}
