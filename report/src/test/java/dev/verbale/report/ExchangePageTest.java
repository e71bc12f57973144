package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Exchange;
import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterExchange;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.opentest4j.AssertionFailedError;

/** Exchanges in the page, opened from disk in a real browser. */
class ExchangePageTest {

    private static final byte[] DOT = Base64.getDecoder()
            .decode("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==");

    private static Chromium chromium;

    @TempDir
    Path root;

    private AdapterRecorder recorder;

    @BeforeAll
    static void open_the_browser() {
        chromium = new Chromium();
    }

    @AfterAll
    static void close_the_browser() {
        chromium.close();
    }

    @Test
    void an_exchange_unfolds_into_both_sides_and_can_be_sent_again() throws Exception {
        Path index = page(() -> {
            Scope test = recorder.startTest(recorder.run(), descriptor("swaps", "swaps two days"));
            recorder.exchange("POST", "http://orto.example/api/seeds?name=Ada&token=t0ps3cret")
                    .client("a client")
                    .requestHeader("Authorization", "Bearer t0ps3cret")
                    .requestHeader("Content-Length", "20")
                    .requestBody("{\"who\":\"Ada's \\\"cat\\\"\"}".getBytes(StandardCharsets.UTF_8), "application/json")
                    .status(422)
                    .responseHeader("Set-Cookie", "bed=7")
                    .responseBody(
                            "{\"error\":{\"field\":\"who\"}}".getBytes(StandardCharsets.UTF_8), "application/json")
                    .ended();
            recorder.exchange("ASK", "tcp://gate:7070").failed(new IOException("nobody there"));
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "#/test/sample.RotaTest.swaps()");

        chromium.find(".exchange summary").click();

        assertThat(chromium.texts(".exchange > details > summary"))
                .satisfiesExactly(
                        first -> assertThat(first).startsWith("POST /api/seeds?name=Ada&token=[masked] 422 "),
                        second -> assertThat(second)
                                .contains("ASK tcp://gate:7070 no response")
                                .contains("nobody there"));
        assertThat(chromium.texts(".sides tr")).contains("name Ada", "Authorization [masked]", "Set-Cookie [masked]");
        assertThat(chromium.texts(".sides .tree > summary")).contains("error: {1}");
        chromium.find(".sides section:nth-child(2) .tree summary").click();
        assertThat(chromium.driver
                        .findElement(By.cssSelector(".sides section:nth-child(2) .leaf"))
                        .isDisplayed())
                .as("folded")
                .isFalse();
        chromium.script(
                "window.copied = []; navigator.clipboard.writeText = t => { copied.push(t); return Promise.resolve() }");
        chromium.driver
                .findElements(By.cssSelector(".copy-commands button:not(.compare)"))
                .forEach(button -> button.click());
        assertThat((List<?>) chromium.script("return copied"))
                .satisfiesExactly(
                        bash -> assertThat(bash.toString())
                                .startsWith("# [masked] stands for a secret that was not recorded.\ncurl \\\n")
                                .contains("--url 'http://orto.example/api/seeds?name=Ada&token=[masked]' \\\n")
                                .contains("--header 'Authorization: [masked]'")
                                .contains("--data-raw '{\"who\":\"Ada'\\''s \\\"cat\\\"\"}'")
                                .doesNotContain("Content-Length"),
                        powerShell -> assertThat(powerShell.toString())
                                .contains("curl.exe")
                                .contains("Ada's"),
                        java -> assertThat(java.toString())
                                .contains(".method(\"POST\", HttpRequest.BodyPublishers.ofString("));
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void all_exchanges_are_listed_and_reckoned_by_endpoint() throws Exception {
        Path index = page(() -> {
            Scope test = recorder.startTest(recorder.run(), descriptor("swaps", "swaps two days"));
            for (int plot = 1; plot <= 20; plot++)
                recorder.exchange("GET", "http://127.0.0.1:" + (4_000 + plot) + "/api/plots/" + plot)
                        .status(plot == 20 ? 500 : 200)
                        .responseBody(new byte[100], "text/plain")
                        .ended();
            recorder.exchange("POST", "http://orto.example/api/seeds").failed(new IOException("nobody there"));
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "");

        chromium.find(".masthead a[href='#/exchanges']").click();

        assertThat(chromium.text("h1")).isEqualTo("21 exchanges");
        assertThat(chromium.text(".totals"))
                .isEqualTo("2.0 kB received; 4xx: 0, 5xx: 1, no response: 1, failed checks: 0");
        assertThat(chromium.texts(".endpoints tbody tr"))
                .anySatisfy(line -> assertThat(line)
                        .startsWith("GET 127.0.0.1/api/plots/{} 20 ")
                        .endsWith(" – 1 – – 2.0 kB"))
                .anySatisfy(line -> assertThat(line)
                        .startsWith("POST orto.example/api/seeds 1 ")
                        .contains(" – – 1 "));
        chromium.find(".filters button:nth-of-type(3)").click();
        assertThat(chromium.texts(".list tr")).singleElement().asString().contains("no response", "nobody there");
        chromium.find(".filters button:nth-of-type(2)").click();
        chromium.driver.findElements(By.cssSelector(".endpoints button")).stream()
                .filter(button -> button.getText().contains("plots"))
                .findFirst()
                .orElseThrow()
                .click();
        assertThat(chromium.texts(".list tr")).singleElement().asString().contains("500 GET /api/plots/20");
        assertThat(chromium.driver.getCurrentUrl()).contains("response=5xx", "endpoint=");
        chromium.find(".list a").click();
        assertThat(chromium.text(".test h1")).isEqualTo("swaps two days");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void what_was_asked_again_and_again_is_one_line_that_says_what_was_waited_for() throws Exception {
        Path index = page(() -> {
            Scope test = recorder.startTest(recorder.run(), descriptor("waits", "waits"));
            for (int i = 0; i < 5; i++)
                recorder.exchange("GET", "http://orto.example/jobs/1")
                        .status(200)
                        .responseBody(
                                (i < 4 ? "{\"state\":\"wilting\"}" : "{\"state\":\"ripe\"}")
                                        .getBytes(StandardCharsets.UTF_8),
                                "application/json")
                        .ended();
            for (int i = 0; i < 2; i++)
                recorder.exchange("GET", "http://orto.example/twice")
                        .status(200)
                        .ended();
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "#/test/sample.RotaTest.waits()");
        chromium.find(".polled");

        assertThat(chromium.texts(".entries > li")).hasSize(3);
        assertThat(chromium.text(".polled > details > summary").replace('\n', ' '))
                .startsWith("GET /jobs/1 5 times")
                .endsWith("answered 200 {\"state\":\"wilting\"}, at last 200 {\"state\":\"ripe\"}");
        chromium.find(".polled > details > summary").click();
        assertThat(chromium.texts(".polled .exchange")).hasSize(5);
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void what_a_test_took_out_of_an_answer_and_sent_again_says_where_it_came_from() throws Exception {
        Path index = page(() -> {
            Scope test = recorder.startTest(recorder.run(), descriptor("lends", "lends"));
            json(
                    "POST",
                    "/loans",
                    "{\"crop\":\"Basil\"}",
                    "{\"loan\":{\"number\":4711},\"crop\":\"Basil\",\"left\":3}");
            json("GET", "/loans/4711?crop=Basil", null, "{\"number\":4711}");
            json("DELETE", "/loans/4711", "{\"left\":3}", "{}");
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "#/test/sample.RotaTest.lends()");
        chromium.find(".exchange summary");
        chromium.driver.findElements(By.cssSelector(".exchange summary")).forEach(line -> line.click());

        assertThat(chromium.texts(".origins"))
                .as("Basil was sent first, and 3 is everywhere")
                .containsExactly(
                        "4711 came from POST /loans, $.loan.number", "4711 came from POST /loans, $.loan.number");
    }

    private void json(String method, String path, String request, String response) {
        AdapterExchange exchange = recorder.exchange(method, "http://orto.example" + path);
        if (request != null) exchange.requestBody(request.getBytes(StandardCharsets.UTF_8), "application/json");
        exchange.status(200)
                .responseBody(response.getBytes(StandardCharsets.UTF_8), "application/json")
                .ended();
    }

    @Test
    void members_of_a_collection_are_one_endpoint_and_few_words_behind_a_path_are_not() throws Exception {
        Path index = page(() -> {
            Scope test = recorder.startTest(recorder.run(), descriptor("lends", "lends"));
            for (String path : List.of(
                    "/api/seeds",
                    "/api/seeds/Basil/loans",
                    "/api/seeds/Borage/loans",
                    "/api/seeds/Kale/loans",
                    "/api/shed",
                    "/api/shed/key",
                    "/api/shed/code",
                    "/api/rota/monday",
                    "/api/rota/tuesday",
                    "/api/rota/friday",
                    "/api/rota/sunday",
                    "/api/beds/North/water",
                    "/api/beds/South/water",
                    "/api/beds/East/water",
                    "/api/user/settings",
                    "/api/team/settings",
                    "/api/door/settings",
                    "/api/crops",
                    "/api/crops/Kale",
                    "/api/crops/Kale/North",
                    "/api/crops/Leek/South",
                    "/api/crops/Bean/East"))
                recorder.exchange("GET", "http://orto.example" + path)
                        .status(200)
                        .ended();
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "#/exchanges");

        assertThat(chromium.texts(".endpoints tbody th"))
                .contains("GET orto.example/api/seeds/{}/loans", "GET orto.example/api/shed/key")
                .as("nobody asked for the rota itself")
                .contains("GET orto.example/api/rota/monday")
                .as("nor for the beds, but what stands before the same word looks like names")
                .contains("GET orto.example/api/beds/{}/water", "GET orto.example/api/team/settings")
                .as("and behind one that is left open")
                .contains("GET orto.example/api/crops/{}/{}")
                .hasSize(16);
        chromium.driver.findElements(By.cssSelector(".endpoints button")).stream()
                .filter(button -> button.getText().contains("loans"))
                .findFirst()
                .orElseThrow()
                .click();
        assertThat(chromium.texts(".list tr")).hasSize(3).allMatch(line -> line.contains("/loans"));
    }

    @Test
    void what_has_no_status_is_answered_all_the_same_and_a_time_that_nobody_knows_is_none() throws Exception {
        Path index = page(() -> {
            Scope test = recorder.startTest(recorder.run(), descriptor("swaps", "swaps two days"));
            recorder.exchange("ASK", "tcp://gate:7070")
                    .responseBody("open".getBytes(StandardCharsets.UTF_8), "text/plain")
                    .ended();
            AdapterExchange first = recorder.exchange("GET", "http://orto.example/old");
            AdapterExchange second = first.next("GET", "http://orto.example/new");
            first.status(302).ended();
            second.status(200).ended();
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "#/test/sample.RotaTest.swaps()");
        chromium.find(".exchange summary");
        assertThat(chromium.texts(".exchange > details > summary"))
                .anySatisfy(line -> assertThat(line).startsWith("ASK tcp://gate:7070 answered"))
                .contains("GET /old 302", "GET /new 200");

        chromium.open(index, "#/exchanges");
        chromium.find(".list tr");
        assertThat(chromium.text(".totals")).contains("4xx: 0, 5xx: 0, no response: 0");
        assertThat(chromium.texts(".list tr"))
                .anySatisfy(line -> assertThat(line).contains("answered ASK tcp://gate:7070"));
        assertThat(chromium.texts(".endpoints tbody tr"))
                .anySatisfy(line -> assertThat(line).startsWith("GET orto.example/old 1 – – "));
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void what_was_checked_and_where_its_trace_is_stands_with_the_exchange() throws Exception {
        AdapterRecorder traced = AdapterRecorder.open(RecorderOptions.defaults()
                .withRoot(root)
                .withSummaryLine(false)
                .withSettings(Map.of("verbale.trace.address", "https://traces.example/$0")));
        Scope test = traced.startTest(traced.run(), descriptor("swaps", "swaps two days"));
        traced.log("4bf92f3577b34da6a3ce929d0e0e4736: the plots are flooded");
        traced.log("    at the well");
        traced.log("of something else");
        Exchange exchange = traced.exchange("GET", "http://orto.example/api/plots")
                .requestHeader("traceparent", "00-4bf92f3577b34da6a3ce929d0e0e4736-00f067aa0ba902b7-01")
                .status(200)
                .responseHeader("Content-Type", "application/json")
                .responseBody(
                        "{\"beds\":[{\"metres\":2},{\"metres\":3}],\"crop\":\"Beans\"}"
                                .getBytes(StandardCharsets.UTF_8),
                        "application/json");
        exchange.ended();
        traced.gatherChecks();
        traced.checked("status code: 200", null);
        exchange.checked("body crop: \"Kale\"", new AssertionError("no kale"));
        exchange.checked("contract of GET /api/plots 200 at /beds/1/metres", new AssertionError("integer found"));
        traced.endTest(test, TestEnd.passed());
        chromium.open(
                Page.write(RunReader.read(traced.folder()), traced.folder().resolve("page")),
                "#/test/sample.RotaTest.swaps()");

        assertThat(chromium.texts(".exchange > details > summary"))
                .singleElement()
                .asString()
                .endsWith("2 of 3 checks failed");
        chromium.find(".exchange summary").click();
        assertThat(chromium.texts(".exchange-checks li"))
                .containsExactly(
                        "status code: 200", "body crop: \"Kale\"", "contract of GET /api/plots 200 at /beds/1/metres");
        assertThat(chromium.texts(".leaf.wrong"))
                .containsExactly("metres: 3 a check failed here", "crop: \"Beans\" a check failed here");
        assertThat(chromium.text(".logged-lines pre"))
                .isEqualTo("4bf92f3577b34da6a3ce929d0e0e4736: the plots are flooded\n    at the well");
        assertThat(chromium.find(".trace a").getDomAttribute("href"))
                .isEqualTo("https://traces.example/4bf92f3577b34da6a3ce929d0e0e4736");
        chromium.open(traced.folder().resolve("page/index.html"), "#/exchanges?checks=failed");
        assertThat(chromium.texts(".list tr")).singleElement().asString().contains("2 checks failed");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void without_a_trace_it_has_what_was_logged_while_it_lasted() throws Exception {
        Path index = page(() -> {
            Scope test = recorder.startTest(recorder.run(), descriptor("swaps", "swaps two days"));
            AdapterExchange exchange = recorder.exchange("GET", "http://orto.example/api/plots");
            Instant sent = Instant.now();
            recorder.log(sent.minusSeconds(5) + " before it");
            recorder.log(sent.toString().replace('T', ' ').replace('.', ',') + " the plots are flooded");
            recorder.log("    at the well");
            recorder.log(sent + " of the trace 4bf92f3577b34da6a3ce929d0e0e4736");
            recorder.log(LocalDateTime.ofInstant(sent, ZoneId.systemDefault()) + " in whatever zone");
            exchange.status(200).ended();
            recorder.log(sent.plusSeconds(5) + " after it");
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "#/test/sample.RotaTest.swaps()");
        chromium.find(".exchange summary").click();

        assertThat(chromium.text(".logged-lines p")).isEqualTo("logged meanwhile");
        assertThat(chromium.text(".logged-lines pre"))
                .contains("the plots are flooded\n    at the well")
                .doesNotContain("before it", "after it", "4bf92f", "whatever zone");
    }

    @Test
    void bodies_of_all_kinds_are_read_and_searched() throws Exception {
        Path index = page(() -> {
            Scope test = recorder.startTest(recorder.run(), descriptor("swaps", "swaps two days"));
            body("application/x-ndjson", "{\"plot\":7}\n{\"plot\":12}\n");
            body("text/event-stream", "event: rain\ndata: 2 mm\n\n: beat\n\ndata: dry\ndata: again\n\n");
            body("application/json", "[" + "{\"crop\":\"Kale\"},".repeat(2_000) + "{\"crop\":\"Basil\"}]");
            recorder.exchange("POST", "http://orto.example/photos")
                    .requestPart("crop", null, "Kale".getBytes(StandardCharsets.UTF_8), "text/plain")
                    .requestPart("photo", "bed.png", DOT, "image/png")
                    .ended();
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "#/test/sample.RotaTest.swaps()");
        chromium.driver.findElements(By.cssSelector(".exchange summary")).forEach(line -> line.click());

        assertThat(chromium.texts(".exchange:has(.events) .events tr"))
                .containsExactly("rain 2 mm", "message dry again");
        assertThat(chromium.texts(".entry:nth-child(1) .leaf")).containsExactly("plot: 7", "plot: 12");
        assertThat(chromium.texts(".part h4")).containsExactly("crop", "photo the file bed.png");
        assertThat(chromium.driver.findElements(By.cssSelector(".part img"))).hasSize(1);
        assertThat(chromium.texts(".entry:nth-child(3) .body > .dim").toString())
                .contains("Only the beginning is shown");
        chromium.script(
                "window.copied = []; navigator.clipboard.writeText = t => { copied.push(t); return Promise.resolve() }");
        chromium.find(".entry:nth-child(4) .copy-commands button").click();
        assertThat((List<?>) chromium.script("return copied"))
                .singleElement()
                .asString()
                .contains(
                        "name=\"crop\"",
                        "cat -- '",
                        "# Save the body as ",
                        "# The heads of its parts were not recorded");
        chromium.find(".entry:nth-child(3) .whole").click();
        chromium.find(".entry:nth-child(3) .tree");
        chromium.find(".entry:nth-child(3) .more").click();
        assertThat(chromium.script("return document.querySelectorAll('.tree .tree').length"))
                .isEqualTo(400L);
        assertThat(chromium.text(".entry:nth-child(3) .more")).isEqualTo("and 1,601 more");
        chromium.find(".entry:nth-child(3) input[type=search]").sendKeys("basil");
        assertThat(chromium.texts(".entry:nth-child(3) mark")).containsExactly("Basil");
        assertThat(chromium.text(".entry:nth-child(3) .body-keys")).contains("1 hit");
        assertThat(chromium.complaints()).isEmpty();
    }

    private void body(String type, String text) {
        recorder.exchange("GET", "http://orto.example/feed")
                .status(200)
                .responseBody(text.getBytes(StandardCharsets.UTF_8), type)
                .ended();
    }

    @Test
    void two_exchanges_are_compared_by_path_with_other_rows_and_an_earlier_run() throws Exception {
        AdapterRecorder before = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root.resolve("before")).withSummaryLine(false));
        total(before, 1, "[{\"crop\":\"Kale\",\"kilos\":3}]", 200);
        recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root.resolve("now")).withSummaryLine(false));
        total(recorder, 1, "[{\"crop\":\"Beans\",\"kilos\":9},{\"crop\":\"Kale\",\"kilos\":3}]", 200);
        total(recorder, 2, "[{\"crop\":\"Kale\",\"kilos\":3.5}]", 500);
        Path page = recorder.folder().resolve("page");
        Page.write(
                RunReader.read(recorder.folder()),
                page,
                PageOptions.PLAIN.withBaseline(RunReader.read(before.folder())));
        chromium.open(page.resolve("index.html"), "#/test/sample.RotaTest.total()%231");

        chromium.find(".exchange summary").click();
        chromium.find(".compare").click();

        assertThat(chromium.text(".comparison option:checked")).startsWith("the same test: 200");
        assertThat(chromium.texts(".differences tbody tr"))
                .contains("response body $[0] {\"crop\":\"Beans\",\"kilos\":9} not there")
                .hasSize(2);
        assertThat(chromium.text(".differences caption")).contains("1 difference", "not compared", "date");
        chromium.driver.findElement(By.cssSelector(".comparison select")).sendKeys("total of plot 2");
        assertThat(chromium.texts(".differences tbody tr").toString())
                .contains(
                        "status 200 500",
                        "response body $[0].crop \"Beans\" \"Kale\"",
                        "response body $[0].kilos 9 3.5",
                        "response body $[1] {\"crop\":\"Kale\",\"kilos\":3} not there");
        assertThat(chromium.complaints()).isEmpty();
    }

    /** Ids longer than the browser's numbers: shown with all their digits, and told apart. */
    @Test
    void numbers_keep_their_digits_and_names_that_stand_twice_are_both_there() throws Exception {
        AdapterRecorder before = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root.resolve("before")).withSummaryLine(false));
        total(before, 1, "{\"id\":12345678901234567890,\"kilos\":2,\"plot\":1,\"plot\":7}", 200);
        recorder = AdapterRecorder.open(
                RecorderOptions.defaults().withRoot(root.resolve("now")).withSummaryLine(false));
        total(recorder, 1, "{\"id\":12345678901234567891,\"kilos\":2.0,\"plot\":1,\"plot\":12}", 200);
        Path page = recorder.folder().resolve("page");
        Page.write(
                RunReader.read(recorder.folder()),
                page,
                PageOptions.PLAIN.withBaseline(RunReader.read(before.folder())));
        chromium.open(page.resolve("index.html"), "#/test/sample.RotaTest.total()%231");

        chromium.find(".exchange summary").click();
        chromium.find(".tree .leaf");
        assertThat(chromium.texts(".tree .leaf"))
                .containsExactly("id: 12345678901234567891", "kilos: 2.0", "plot: 1", "plot: 12");
        chromium.find(".compare").click();
        assertThat(chromium.texts(".differences tbody tr"))
                .contains(
                        "response body $.id 12345678901234567891 12345678901234567890",
                        "response body $.kilos 2.0 2",
                        "response body $[\"plot (2)\"] 12 7");
        assertThat(chromium.complaints()).isEmpty();
    }

    private static void total(AdapterRecorder to, int row, String answer, int status) {
        Scope test = to.startTest(
                to.run(),
                TestDescriptor.of("sample.RotaTest.total()#" + row, "total of plot " + row)
                        .className("sample.RotaTest")
                        .methodName("total")
                        .build());
        to.data("plot", row);
        to.exchange("GET", "http://127.0.0.1:" + (4_000 + row) + "/api/totals/" + row)
                .status(status)
                .responseHeader("Date", "now " + row + to.now())
                .responseBody(answer.getBytes(StandardCharsets.UTF_8), "application/json")
                .ended();
        to.endTest(test, status == 200 ? TestEnd.passed() : TestEnd.threw(new AssertionError("no total of " + row)));
    }

    @Test
    void an_error_that_a_passed_test_wanted_is_not_red_and_times_are_drawn_on_one_scale() throws Exception {
        Path index = page(() -> {
            for (boolean passes : List.of(true, false)) {
                Scope test = recorder.startTest(
                        recorder.run(), descriptor(passes ? "wanted" : "broken", passes ? "wanted" : "broken"));
                recorder.exchange("GET", "http://orto.example/api/plots/99")
                        .status(404)
                        .ended();
                recorder.endTest(test, passes ? TestEnd.passed() : TestEnd.threw(new AssertionError("no plot")));
            }
        });

        chromium.open(index, "#/test/sample.RotaTest.wanted()");
        assertThat(chromium.find(".exchange").getDomAttribute("class")).doesNotContain("bad");
        chromium.open(index, "#/test/sample.RotaTest.broken()");
        assertThat(chromium.find(".exchange").getDomAttribute("class")).contains("bad");
        chromium.open(index, "#/exchanges");
        chromium.waitFor("return document.querySelectorAll('.list .bad').length === 1");
        assertThat(chromium.text(".list .bad")).contains("404", "broken");
        assertThat(chromium.find(".times").getDomAttribute("aria-label")).matches("from \\S+ \\S+ to \\S+ \\S+");
    }

    @Test
    void the_list_is_filtered_by_host_and_ordered_by_path() throws Exception {
        Path index = page(() -> {
            Scope test = recorder.startTest(recorder.run(), descriptor("swaps", "swaps two days"));
            for (String address :
                    List.of("https://orto.example/seeds", "https://sun.example/b", "https://sun.example/a"))
                recorder.exchange("GET", address).status(200).ended();
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "#/exchanges?order=path");

        assertThat(chromium.texts(".list .code")).containsExactly("GET /a", "GET /b", "GET /seeds");
        chromium.driver.findElement(By.cssSelector(".choice select")).sendKeys("sun.example");
        assertThat(chromium.texts(".list .code")).containsExactly("GET /a", "GET /b");
        assertThat(chromium.driver.getCurrentUrl()).contains("host=sun.example", "order=path");
        chromium.find(".find input").sendKeys("no such path");
        assertThat(chromium.texts(".list tr")).isEmpty();
        assertThat(chromium.text(".found")).isEqualTo("0 of 3");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void on_a_telephone_nothing_is_wider_than_the_screen() throws Exception {
        Path index = page(() -> {
            for (int row = 1; row <= 3; row++)
                total(recorder, row, "[{\"crop\":\"" + "Kale".repeat(90) + row + "\"}]", 200);
        });
        chromium.resize(400, 800);
        try {
            chromium.open(index, "#/exchanges");
            chromium.find(".endpoints td");
            assertThat(width()).isLessThanOrEqualTo(400);
            chromium.open(index, "#/test/sample.RotaTest.total()%233");
            chromium.find(".exchange summary").click();
            chromium.find(".compare").click();
            chromium.find(".differences");
            assertThat(width()).isLessThanOrEqualTo(400);
        } finally {
            chromium.resize(1280, 800);
        }
    }

    private static long width() {
        return ((Number) chromium.script("return document.documentElement.scrollWidth")).longValue();
    }

    @Test
    void rows_of_data_are_a_table_that_can_be_filtered() throws Exception {
        Path index = page(() -> {
            for (int row = 1; row <= 8; row++) total(recorder, row, "[]", row == 7 ? 500 : 200);
        });
        chromium.open(index, "#/test/sample.RotaTest.total()%233");

        assertThat(chromium.text(".data-rows summary")).isEqualTo("One of 8 rows of data, 1 of which did not pass");
        assertThat(chromium.texts(".data-rows tbody tr"))
                .hasSize(8)
                .anySatisfy(line -> assertThat(line).startsWith("7 7 ").endsWith("no total of 7"));
        chromium.find(".data-rows input").sendKeys("no total");
        assertThat(chromium.texts(".data-rows tbody tr")).hasSize(1);
        chromium.find(".data-rows tbody a").click();
        assertThat(chromium.text("h1")).isEqualTo("total of plot 7");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void rows_of_data_say_what_a_failed_check_found_in_each_of_them() throws Exception {
        Path index = page(() -> {
            for (int row = 1; row <= 4; row++) weighing(row);
        });
        chromium.open(index, "#/test/sample.RotaTest.weighs()%232");

        assertThat(chromium.texts(".data-rows th[scope=col]"))
                .containsExactly("row", "plot", "found: body beds[0].kilos", "found: crop", "time", "failed first");
        assertThat(chromium.texts(".data-rows tbody tr"))
                .anySatisfy(line -> assertThat(line).matches("4 4 5 bean [^ ]+ [mµ]?s body beds\\[0].kilos: is <4>"))
                .anySatisfy(line -> assertThat(line).matches("3 3 3 kale [^ ]+ [mµ]?s crop"))
                .anySatisfy(line -> assertThat(line).matches("1 1 1 bean [^ ]+ [mµ]?s"));
        assertThat(chromium.texts(".data-rows td.failed")).containsExactlyInAnyOrder("5", "kale");
        assertThat(chromium.texts(".step.passed .found")).contains("bean");
        assertThat(chromium.complaints()).isEmpty();
    }

    private void weighing(int row) {
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("sample.RotaTest.weighs()#" + row, "weighs " + row)
                        .className("sample.RotaTest")
                        .methodName("weighs")
                        .build());
        recorder.data("plot", row);
        int kilos = row == 4 ? 5 : row;
        var exchange = recorder.exchange("GET", "http://orto.example/api/weights/" + row)
                .status(200)
                .responseBody(
                        ("{\"beds\":[{\"kilos\":" + kilos + "}]}").getBytes(StandardCharsets.UTF_8),
                        "application/json");
        exchange.ended();
        String crop = row == 3 ? "kale" : "bean";
        recorder.checked("crop", row == 3 ? new AssertionFailedError("expected bean", "bean", crop) : null, crop);
        AssertionError failure = row == 4 ? new AssertionError("not 4") : null;
        exchange.checked("body beds[0].kilos: is <" + row + ">", failure);
        recorder.endTest(test, row > 2 ? TestEnd.threw(new AssertionError("not " + row)) : TestEnd.passed());
    }

    @Test
    void what_a_contract_offers_and_nobody_called_is_listed() throws Exception {
        String document = """
                {"openapi": "3.1.0", "paths": {
                  "/api/plots": {"get": {}, "post": {}, "parameters": []},
                  "/api/plots/{number}": {"get": {}, "delete": {}},
                  "/api/plots/free": {"get": {}}, "/<b>odd": {"put": {}}}}""";
        Path index = page(() -> {
            for (String name : List.of("Orto 1.4", "the same, of another worker"))
                recorder.attach(
                        recorder.run(),
                        name,
                        "attachment",
                        new java.io.ByteArrayInputStream(document.getBytes(StandardCharsets.UTF_8)),
                        MediaType.of("application/openapi+json"),
                        0);
            recorder.attach(
                    recorder.run(),
                    "torn",
                    "attachment",
                    new java.io.ByteArrayInputStream("{\"paths\": [".getBytes(StandardCharsets.UTF_8)),
                    MediaType.of("application/openapi+json"),
                    0);
            Scope test = recorder.startTest(recorder.run(), descriptor("looks", "looks"));
            for (String path : List.of("/garden/api/plots?free=1", "/garden/api/plots/free", "/api/plots"))
                recorder.exchange("GET", "http://orto.example" + path)
                        .status(200)
                        .ended();
            recorder.exchange("DELETE", "http://orto.example/api/plots/7")
                    .status(204)
                    .ended();
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "#/exchanges");

        assertThat(chromium.text(".uncalled summary")).isEqualTo("3 of 6 operations of Orto 1.4 were not called");
        assertThat(chromium.texts(".uncalled li"))
                .containsExactly("POST /api/plots", "GET /api/plots/{number}", "PUT /<b>odd");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void a_retry_says_after_what() throws Exception {
        Path index = page(() -> {
            Scope test = recorder.startTest(recorder.run(), descriptor("tries", "tries"));
            for (int status : List.of(503, 200, 200))
                recorder.exchange("GET", "http://orto.example/api/gate")
                        .status(status)
                        .ended();
            recorder.exchange("GET", "http://orto.example/api/shed").failed(new java.io.IOException("reset"));
            recorder.exchange("GET", "http://orto.example/api/shed").status(200).ended();
            recorder.exchange("POST", "http://orto.example/api/shed")
                    .status(200)
                    .ended();
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "#/test/sample.RotaTest.tries()");

        chromium.find(".polled summary").click();
        assertThat(chromium.texts(".exchange summary").stream().filter(line -> line.contains("again, after")))
                .hasSize(2)
                .anyMatch(line -> line.endsWith("again, after 503"))
                .anyMatch(line -> line.endsWith("again, after no response"));
        chromium.script("[...document.querySelectorAll('.exchange summary')].at(-1).click()");
        chromium.find(".exchange .detail a[href*='exchanges']").click();
        assertThat(chromium.texts(".list .code"))
                .as("and what others did to the same")
                .hasSize(3)
                .allMatch(line -> line.contains("/api/shed"));
    }

    @Test
    void an_http_archive_of_somebody_else_is_read_as_exchanges() throws Exception {
        Path index = page(() -> {
            Scope test = recorder.startTest(recorder.run(), descriptor("swaps", "swaps two days"));
            recorder.attach(Path.of("../har/src/test/archives/seeds.har"));
            recorder.attach("broken.har", "{".getBytes(StandardCharsets.UTF_8), MediaType.of("application/har+json"));
            recorder.endTest(test, TestEnd.passed());
        });
        chromium.open(index, "#/test/sample.RotaTest.swaps()");

        chromium.find(".archive > details > summary").click();
        assertThat(chromium.texts(".archive .exchange > details > summary"))
                .satisfiesExactly(
                        first -> assertThat(first).startsWith("POST /seeds?token=[masked] 200 20 ms"),
                        second -> assertThat(second).contains("GET /shed no response", "ERR_CONNECTION_REFUSED"));
        assertThat(chromium.text(".archive.reason")).contains("broken.har cannot be read");
        assertThat(chromium.complaints()).isEmpty();
    }

    private static TestDescriptor descriptor(String method, String name) {
        return TestDescriptor.of("sample.RotaTest." + method + "()", name)
                .className("sample.RotaTest")
                .methodName(method)
                .tags(List.of("api"))
                .build();
    }

    private Path page(Runnable recording) throws IOException {
        recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        recording.run();
        return Page.write(RunReader.read(root), root.resolve("page"));
    }
}
