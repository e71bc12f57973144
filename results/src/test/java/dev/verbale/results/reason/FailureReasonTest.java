package dev.verbale.results.reason;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.AttachmentStored;
import dev.verbale.event.CheckMade;
import dev.verbale.event.ContainerEnded;
import dev.verbale.event.ContainerStarted;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.event.LogWritten;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.results.SampleRun;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Reasons by what was recorded beside the failure. */
class FailureReasonTest {

    private static final Failure NO_ELEMENT = SampleRun.failure(
            "org.openqa.selenium.NoSuchElementException",
            "no such element: Unable to locate element: {\"method\":\"css selector\",\"selector\":\"#swap\"}",
            "dev.orto.RotaPage.swap(RotaPage.java:9)");

    @TempDir
    Path root;

    private SampleRun run;
    private int ids;

    @BeforeEach
    void begin() throws Exception {
        run = SampleRun.in(root, "run");
    }

    @Test
    void a_browser_and_an_api_test_that_met_the_same_response_have_one_reason() throws Exception {
        int api = begins("api");
        run.write(exchange(
                api, 1, "http://localhost:40123/api/swaps/17?dry=1", 503, "{\"error\":\"the shed is locked\"}"));
        ends(api, Outcome.FAILED, SampleRun.failure("E", "Expected status code <201> but was <503>."));
        int page = begins("page");
        attach(
                page,
                "network",
                "[{\"at\":1,\"method\":\"POST\",\"url\":\"http://localhost:5000/api/swaps/4\",\"status\":503}]");
        ends(page, Outcome.ERRORED, NO_ELEMENT);

        assertThat(FailureReason.of(run.read())).singleElement().satisfies(reason -> {
            assertThat(reason.title()).isEqualTo("POST /api/swaps/… answered 503");
            assertThat(reason.evidence()).isEqualTo("{\"error\":\"the shed is locked\"}");
            assertThat(reason.tests()).hasSize(2);
        });
    }

    @Test
    void two_errors_of_one_endpoint_are_two_reasons() throws Exception {
        for (String error : List.of("no bed 4", "no bed 12", "quota exceeded")) {
            int id = begins(error);
            run.write(exchange(id, id, "http://orto.example/api/beds", 422, "{\"message\":\"" + error + "\"}"));
            ends(id, Outcome.FAILED, SampleRun.failure("E", "expected status 200 but was 422"));
        }

        assertThat(FailureReason.of(run.read()))
                .extracting(reason -> reason.title() + ": " + reason.tests().size())
                .containsExactly(
                        "POST orto.example/api/beds answered 422, expected 200: 2",
                        "POST orto.example/api/beds answered 422, expected 200: 1");
    }

    @Test
    void two_sides_that_show_the_same_wrong_thing_after_the_same_request_have_one_reason() throws Exception {
        shows("api", "/api/swaps", "expected: <Mon: Dario, Thu: Ada> but was: <Mon: Dario, Thu: Dario>");
        shows("page", "/api/swaps", "Thursday ==> expected: <Ada> but was: <Dario>");
        shows("other request", "/api/lots", "Friday ==> expected: <Ada> but was: <Dario>");
        shows("sachets left", "/api/loans", "[sachets left] expected: 0 but was: 1");
        shows("sachets", "/api/loans", "JSON path sachets doesn't match.\nExpected: <0>\n  Actual: <1>\n");
        shows("rows", "/api/loans", "rows ==> expected: <0> but was: <1>");
        shows("plain", "/api/loans", "expected: <0> but was: <1>");

        assertThat(FailureReason.of(run.read()))
                .extracting(reason ->
                        reason.tests().stream().map(TestResult::name).toList().toString())
                .containsExactly("[api, page]", "[sachets left, sachets]", "[other request]", "[rows]", "[plain]");
    }

    private void shows(String name, String changed, String message) throws Exception {
        int id = begins(name);
        run.write(exchange(id, id, "http://localhost:" + (5_000 + id) + changed, 200, "{}"));
        ends(id, Outcome.FAILED, SampleRun.failure("E", message));
    }

    @Test
    void an_error_that_the_test_wanted_or_that_was_made_good_is_not_the_reason() throws Exception {
        int wanted = begins("wanted");
        run.write(
                exchange(wanted, 1, "http://localhost/api/shed", 503, "{}"),
                CheckMade.of(wanted * 100L + 3, wanted, "status is 503", Outcome.PASSED)
                        .exchange(1)
                        .build());
        ends(wanted, Outcome.FAILED, SampleRun.failure("E", "the lamp is off"));
        int repaired = begins("repaired");
        run.write(
                exchange(repaired, 2, "http://localhost/api/shed", 503, "{}"),
                exchange(repaired, 3, "http://localhost/api/shed", 200, "{}"));
        ends(repaired, Outcome.ERRORED, SampleRun.failure("E", "the lamp is off"));

        assertThat(FailureReason.of(run.read()))
                .singleElement()
                .satisfies(reason -> assertThat(reason.title()).isEqualTo("the lamp is off"));
    }

    @Test
    void elements_that_a_broken_script_left_out_have_its_error_as_their_reason() throws Exception {
        String console = "[{\"at\":1,\"level\":\"error\",\"text\":\"Uncaught ReferenceError: seeds is not defined\"},"
                + "{\"at\":2,\"level\":\"error\",\"text\":\"Failed to load resource: 404\"}]";
        int one = begins("one");
        attach(one, "console", console);
        ends(one, Outcome.ERRORED, NO_ELEMENT);
        int two = begins("two");
        attach(two, "console", console);
        ends(
                two,
                Outcome.ERRORED,
                SampleRun.failure(
                        "org.openqa.selenium.TimeoutException",
                        "Expected condition failed: waiting for visibility of element found by By.id: basil"));

        assertThat(FailureReason.of(run.read())).singleElement().satisfies(reason -> {
            assertThat(reason.title()).isEqualTo("Script error: ReferenceError: seeds is not defined");
            assertThat(reason.evidence()).isEqualTo("No such element: #swap");
            assertThat(reason.tests()).hasSize(2);
        });
    }

    @Test
    void the_last_error_that_a_logger_wrote_explains_what_a_test_threw() throws Exception {
        int id = begins("a");
        run.write(LogWritten.of(id * 100L + 1, id, "compost is on fire")
                .level("error")
                .logger("orto")
                .build());
        ends(id, Outcome.ERRORED, SampleRun.failure("E", "no steam"));

        assertThat(FailureReason.of(run.read()).get(0).evidence()).isEqualTo("compost is on fire");
    }

    @Test
    void a_set_up_that_failed_shares_the_reason_of_tests_and_has_one_alone() throws Exception {
        Failure refused = SampleRun.failure("java.net.ConnectException", "Connection refused");
        int id = begins("a");
        ends(id, Outcome.ERRORED, refused);
        run.write(
                ContainerStarted.of(1_000, 900, "dev.orto.ShedTest", "Shed")
                        .className("dev.orto.ShedTest")
                        .build(),
                ContainerEnded.of(1_010, 900, Outcome.ERRORED)
                        .failure(refused)
                        .notRun(3)
                        .build(),
                ContainerStarted.of(1_020, 901, "dev.orto.GateTest", "Gate")
                        .className("dev.orto.GateTest")
                        .build(),
                ContainerEnded.of(1_030, 901, Outcome.ERRORED)
                        .failure(SampleRun.failure("E", "no key", "dev.orto.GateTest.up(G.java:3)"))
                        .notRun(2)
                        .build());

        assertThat(FailureReason.of(run.read()))
                .extracting(reason -> reason.title() + ": " + reason.tests().size() + ", "
                        + reason.containers().size())
                .containsExactly("Connection refused: the server is not listening: 1, 1", "no key: 0, 1");
    }

    @Test
    void a_reason_has_the_same_id_in_every_run_and_whatever_lists_strangers_wrote() throws Exception {
        int id = begins("a");
        attach(id, "network", "[[[{\"status\":{}}], 7, {\"status\":\"\\u0000\"}, {\"url\":");
        attach(id, "console", "no list");
        ends(id, Outcome.ERRORED, NO_ELEMENT);

        assertThat(FailureReason.of(run.read())).singleElement().satisfies(reason -> {
            assertThat(reason.title()).isEqualTo("No such element: #swap");
            assertThat(reason.id()).isEqualTo("065e099110c2");
        });
    }

    @Test
    void a_helper_that_only_runs_the_tests_own_lambda_is_no_place_that_they_share() throws Exception {
        for (String test : List.of("ripens", "locks", "pays")) {
            int id = ++ids;
            String type = "dev.orto." + (test.equals("pays") ? "Till" : "Bed") + "Test";
            run.write(TestStarted.of(id * 100L, id, type + "." + test, test)
                    .className(type)
                    .methodName(test)
                    .thread("main")
                    .build());
            ends(
                    id,
                    Outcome.FAILED,
                    SampleRun.failure(
                            "org.opentest4j.AssertionFailedError",
                            "expected: <true> but was: <false>",
                            type + ".lambda$" + test + "$0(T.java:5)",
                            "dev.orto.Retry.eventually(Retry.java:9)",
                            type + "." + test + "(T.java:4)"));
        }

        assertThat(FailureReason.of(run.read())).hasSize(3);
    }

    @Test
    void a_failure_of_many_is_known_by_its_parts_however_often_each_failed() throws Exception {
        many("a", "the bed is dry", "the gate is open");
        many("b", "the bed is dry", "the bed is dry", "the gate is open");
        many("c", "the till is short");
        many("d", "the till is short", "the till is short", "the till is short");
        ends(begins("e"), Outcome.FAILED, part("the till is short"));
        many("f", "the bed is dry", "the till is short");
        Failure alone = part("the well is deep");
        Failure after = Failure.of("E", "E\n").message("cannot close").build();
        ends(
                begins("g"),
                Outcome.FAILED,
                Failure.of(alone.type(), alone.stack())
                        .message(alone.message())
                        .gathered(List.of(after))
                        .build());

        assertThat(FailureReason.of(run.read()))
                .extracting(reason -> reason.title() + ": " + reason.tests().size())
                .containsExactly(
                        "the till is short: 3",
                        "the bed is dry (and another): 2",
                        "the bed is dry (and another): 1",
                        "the well is deep: 1");
        assertThat(FailureReason.of(run.read()).get(1).frame()).isEqualTo("dev.orto.T.tests(T.java:7)");
    }

    /** As an assertion of many throws it, of which the parts are not known any more. */
    @Test
    void that_two_tests_failed_twice_is_nothing_that_they_share() throws Exception {
        for (String test : List.of("grows", "waters")) {
            int id = begins(test);
            ends(
                    id,
                    Outcome.FAILED,
                    SampleRun.failure(
                            "org.opentest4j.MultipleFailuresError",
                            "Multiple Failures (2 failures)\n\torg.opentest4j.AssertionFailedError: the " + test
                                    + " is wrong\n\torg.opentest4j.AssertionFailedError: expected: <1> but was: <2>",
                            "dev.orto.T." + test + "(T.java:7)"));
        }

        assertThat(FailureReason.of(run.read()))
                .extracting(FailureReason::title)
                .containsExactly(
                        "org.opentest4j.AssertionFailedError: the grows is wrong",
                        "org.opentest4j.AssertionFailedError: the waters is wrong");
    }

    @Test
    void numbers_in_the_names_of_the_suites_own_code_tell_places_apart() throws Exception {
        for (String check : List.of("check21", "check61"))
            ends(
                    begins(check),
                    Outcome.ERRORED,
                    SampleRun.failure(
                            "java.lang.IllegalStateException",
                            check + " gave up on bed 7",
                            "dev.orto.Checks." + check + "(Checks.java:3)",
                            "dev.orto.T.tests(T.java:7)"));
        for (String bed : List.of("bed21", "bed61"))
            ends(
                    begins(bed),
                    Outcome.ERRORED,
                    SampleRun.failure(
                            "java.lang.IllegalStateException", bed + " is dry", "dev.orto.T.tests(T.java:7)"));

        assertThat(FailureReason.of(run.read()))
                .extracting(reason -> reason.tests().size())
                .containsExactly(2, 1, 1);
    }

    private void many(String name, String... parts) throws Exception {
        Failure several = Failure.of("org.opentest4j.MultipleFailuresError", "")
                .message("Multiple Failures (" + parts.length + " failures)")
                .gathered(Stream.of(parts).map(FailureReasonTest::part).toList())
                .build();
        ends(begins(name), Outcome.FAILED, several);
    }

    private static Failure part(String message) {
        return SampleRun.failure("org.opentest4j.AssertionFailedError", message, "dev.orto.T.tests(T.java:7)");
    }

    private int begins(String name) throws Exception {
        int id = ++ids;
        run.write(TestStarted.of(id * 100L, id, "dev.orto.T." + name, name)
                .className("dev.orto.T")
                .methodName("tests")
                .thread("main")
                .build());
        return id;
    }

    private void ends(int id, Outcome outcome, Failure failure) throws Exception {
        run.write(TestEnded.of(id * 100L + 50, id, outcome).failure(failure).build());
    }

    private void attach(int in, String kind, String json) throws Exception {
        String file = "tests/" + in + "-" + kind + ".json";
        Files.createDirectories(run.path().resolve("tests"));
        Files.writeString(run.path().resolve(file), json);
        var stored = new AttachmentStored.StoredFile(file, "application/json", json.length(), null);
        run.write(AttachmentStored.of(in * 100L + 5, in, kind, kind, stored).build());
    }

    private static ExchangeMade exchange(int in, int id, String url, int status, String body) {
        return ExchangeMade.of(in * 100L + 1, new ExchangeMade.Request("POST", url, List.of(), null))
                .id(id)
                .in(in)
                .client("client")
                .response(new ExchangeMade.Response(
                        status,
                        List.of(),
                        new ExchangeMade.Body(
                                "application/json", body.length(), body.length(), body, false, null, List.of(), null)))
                .timing(new ExchangeMade.Timing(1L, Map.of()))
                .build();
    }
}
