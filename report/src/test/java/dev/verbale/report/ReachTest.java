package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.params.provider.Arguments.arguments;

import com.deque.html.axecore.results.CheckedNode;
import com.deque.html.axecore.selenium.AxeBuilder;
import dev.verbale.event.AttachmentStored;
import dev.verbale.event.CheckMade;
import dev.verbale.event.DataNamed;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.Failure;
import dev.verbale.event.LogWritten;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.hostile.ByDay;
import dev.verbale.results.Run;
import dev.verbale.results.SampleRun;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.openqa.selenium.Keys;

/** The page by keyboard, and for who hears it instead of seeing it. */
class ReachTest {

    private static final Failure NO_BUTTON = Failure.of(
                    "org.openqa.selenium.NoSuchElementException",
                    "org.openqa.selenium.NoSuchElementException: no such element\n\tat dev.orto.SeedsTest.lends(SeedsTest.java:20)")
            .message("no such element: Unable to locate element: {\"method\":\"css selector\",\"selector\":\"#lend\"}")
            .build();

    @TempDir
    static Path root;

    private static Chromium chromium;
    private static Path index;
    private static Run run;

    @BeforeAll
    static void write_a_page() throws Exception {
        chromium = new Chromium();
        SampleRun sample = SampleRun.in(root, "tonight");
        Files.writeString(sample.path().resolve("page.html"), "<h1>Seeds</h1><button id='lend-now'>Lend</button>");
        var stored = new AttachmentStored.StoredFile("page.html", "text/html", 60, null);
        sample.write(
                TestStarted.of(0, 1, "lends", "lends basil")
                        .className("dev.orto.SeedsTest")
                        .methodName("lends")
                        .thread("main")
                        .tags(List.of("seeds", "smoke"))
                        .build(),
                new DataNamed(1, 1, "seed", "Basil"),
                StepStarted.of(1_000, 2, StepKind.SET_UP, "open the library")
                        .in(1)
                        .build(),
                StepEnded.of(2_000, 2, Outcome.PASSED).build(),
                StepStarted.of(2_500, 3, StepKind.ACTION, "Lend Basil").in(1).build(),
                LogWritten.of(2_600, 3, "the shelf is dark")
                        .level("warn")
                        .logger("orto")
                        .build(),
                CheckMade.of(2_650, 3, "a check", Outcome.FAILED).build(),
                StepEnded.of(2_700, 3, Outcome.ERRORED).failure(NO_BUTTON).build(),
                ExchangeMade.of(2_750, new ExchangeMade.Request("GET", "http://localhost/api/seeds", List.of(), null))
                        .id(7)
                        .in(1)
                        .client("JDK HttpClient")
                        .protocol("HTTP/1.1")
                        .response(new ExchangeMade.Response(500, List.of(), null))
                        .timing(new ExchangeMade.Timing(3_000L, Map.of()))
                        .build(),
                AttachmentStored.of(2_800, 1, "page source", AttachmentKind.PAGE_SOURCE, stored)
                        .build(),
                TestEnded.of(3_000, 1, Outcome.ERRORED).failure(NO_BUTTON).build());
        sample.test("passes", Outcome.PASSED, null);
        sample.test("waits", Outcome.SKIPPED, null);
        sample.test("flickers", Outcome.FAILED, SampleRun.failure("java.lang.AssertionError", "cold"));
        sample.test("flickers", Outcome.PASSED, null);
        sample.test(
                "differs",
                Outcome.FAILED,
                Failure.of("E", "E: no kale")
                        .message("no kale")
                        .expected("Ada")
                        .actual("Dario")
                        .build());
        sample.test(
                "compares",
                Outcome.FAILED,
                Failure.of("E", "E: other beds")
                        .message("other beds")
                        .expected("{\"id\":12345678901234567890,\"n\":1.0,\"beds\":[1,2],\"by\":\"Ada\"}")
                        .actual("{\"by\":\"Ada\", \"id\":12345678901234567891,\"n\":1,\"beds\":[1,2,3]}")
                        .build());
        run = sample.read();
        index = Page.write(run, root.resolve("page"));
    }

    @AfterAll
    static void close_the_browser() {
        chromium.close();
    }

    static Stream<Arguments> views() {
        return ByDay.everyFourth(List.of(
                arguments("#/", ".tables"),
                arguments("#/tests", ".row-line"),
                arguments("#/tests?group=reason&failing=failing", ".row-line"),
                arguments("#/test/lends", ".brief"),
                arguments("#/tests?columns=tag%2Cowner%2Cclass%2Cworker%2Cid", ".cell"),
                arguments("#/test/sample.flickers()?beside=sample.flickers()~2", ".first-difference"),
                arguments("#/test/sample.differs()", ".difference"),
                arguments("#/test/sample.compares()", ".paths"),
                arguments("#/workers", ".lanes"),
                arguments("#/exchanges", ".endpoints"),
                arguments("#/test/run", "h1"),
                arguments("#/test/nobody", ".lost")));
    }

    @ParameterizedTest
    @MethodSource("views")
    void axe_finds_nothing_in_light_and_in_dark(String hash, String awaited) {
        chromium.open(index, hash);
        chromium.find(awaited);
        chromium.script("document.querySelectorAll('details').forEach(one => one.open = true)");

        // The dark theme has other colours, and nothing else.
        assertThat(violations("light", axe())).as("light").isEmpty();
        assertThat(violations("dark", axe().withRules(List.of("color-contrast", "link-in-text-block"))))
                .as("dark")
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource({"#/, .tables", "#/test/lends, .brief", "#/test/sample.compares(), .paths", "#/exchanges, .endpoints"})
    void a_telephone_shows_all_of_it_and_axe_finds_nothing(String hash, String awaited) {
        chromium.resize(390, 844);
        try {
            chromium.open(index, hash);
            chromium.find(awaited);
            chromium.script("document.querySelectorAll('details').forEach(one => one.open = true)");

            assertThat(chromium.script(
                            "return document.documentElement.scrollWidth - document.documentElement.clientWidth"))
                    .as("nothing is wider than the screen")
                    .isEqualTo(0L);
            assertThat(violations("light", axe())).isEmpty();
        } finally {
            chromium.driver().executeCdpCommand("Emulation.clearDeviceMetricsOverride", Map.of());
        }
    }

    /** That looks at the page where it is: the usual way opens a window for each look, which pages with frames of others need. */
    @SuppressWarnings("deprecation")
    private static AxeBuilder axe() {
        return new AxeBuilder().setLegacyMode(true);
    }

    private static List<String> violations(String theme, AxeBuilder axe) {
        chromium.script("document.documentElement.dataset.theme = '" + theme + "'");
        return axe.analyze(chromium.driver()).getViolations().stream()
                .map(rule -> rule.getId() + ": "
                        + rule.getNodes().stream()
                                .map(CheckedNode::getHtml)
                                .limit(3)
                                .toList())
                .toList();
    }

    @Test
    void every_view_is_reached_by_keys_and_says_where_it_is() {
        chromium.open(index, "");
        chromium.find(".tables");
        assertThat(chromium.script("return document.title")).isEqualTo("tonight · Verbale");

        chromium.press("t");
        chromium.find(".row-line");
        chromium.waitFor("return document.title === 'Tests · tonight · Verbale'");
        assertThat(chromium.script("return document.activeElement.tagName")).isEqualTo("MAIN");
        chromium.press("/");
        chromium.waitFor("return document.activeElement.type === 'search'");
        chromium.script("document.activeElement.blur()");
        chromium.script("location.hash = document.querySelector('.row-line').hash");
        chromium.waitFor("return document.title === 'lends basil · tonight · Verbale'");
        chromium.press("n");
        chromium.waitFor("return document.title === 'passes · tonight · Verbale'");
        chromium.press("f");
        chromium.waitFor("return document.title.startsWith('flickers')");
        chromium.press("?");
        assertThat(chromium.text("dialog.help[open] h2")).isEqualTo("Keys");
        chromium.escape();
        chromium.waitFor("return !document.querySelector('dialog.help').open");
        chromium.press("s");
        chromium.waitFor("return document.title === 'tonight · Verbale'");
    }

    @Test
    void all_that_is_folded_unfolds_on_a_key_and_folds_again() {
        chromium.open(index, "#/test/sample.compares()");
        chromium.find(".paths");
        String folded = "return [...document.querySelectorAll('main details')].filter(one => !one.open).length";
        assertThat(chromium.script(folded)).isNotEqualTo(0L);

        chromium.press("e");
        assertThat(chromium.script(folded)).isEqualTo(0L);
        chromium.press("e");
        assertThat(chromium.script("return document.querySelectorAll('main details[open]').length"))
                .isEqualTo(0L);
    }

    @Test
    void the_first_tab_stop_skips_to_the_content() {
        chromium.open(index, "#/tests");
        chromium.find(".row-line");

        chromium.press(Keys.TAB);
        assertThat(chromium.script("return document.activeElement.textContent.trim()"))
                .isEqualTo("Skip to the content");
        chromium.script("document.activeElement.click()");

        assertThat(chromium.script("return document.activeElement.tagName")).isEqualTo("MAIN");
    }

    @Test
    void what_is_near_to_a_missing_element_stands_under_the_failure() {
        chromium.complaints(); // of axe, which asks for what the page's policy refuses
        chromium.open(index, "#/test/lends");

        assertThat(chromium.text(".nearest")).contains("The page had no #lend; nearest to it:", "button#lend-now Lend");
        assertThat(chromium.text(".brief button")).isEqualTo("Copy as text");
        assertThat(chromium.complaints()).isEmpty();
    }

    @Test
    void workers_say_what_ran_where_and_lead_to_it() {
        chromium.open(index, "#/workers");

        assertThat(chromium.text(".workers h1")).startsWith("1 thread of 1 worker ran for ");
        assertThat(chromium.text(".workers tbody tr")).contains("worker-1, main", "7 starts");
        chromium.find("button[aria-label=Closer]").click();
        assertThat(chromium.text(".range")).contains("the whole run");
        chromium.find(".range .word").click();
        assertThat(chromium.texts(".lanes path")).as("one for each outcome").hasSize(4);
        chromium.find(".workers tbody a").click();
        chromium.find(".row-line");
        assertThat(chromium.text(".group-line h2")).isEqualTo("worker-1, main");
    }

    @Test
    void what_was_found_is_copied_for_other_tools() {
        chromium.open(index, "#/tests?find=lends");
        chromium.find(".row-line");
        chromium.script("window.copies = []; navigator.clipboard.writeText = text => {"
                + " window.copies.push(text); return Promise.resolve(); };"
                + " document.querySelectorAll('.copying button').forEach(button => button.click())");

        assertThat(chromium.script("return window.copies"))
                .isEqualTo(List.of(
                        "lends",
                        "id,name,outcome,microseconds,tags,message\r\nlends,lends basil,errored,3000,seeds smoke,"
                                + "\"no such element: Unable to locate element: {\"\"method\"\":\"\"css selector\"\",\"\"selector\"\":\"\"#lend\"\"}\"",
                        "mvn verify '-Dtest=dev.orto.SeedsTest' -Dsurefire.failIfNoSpecifiedTests=false"));
    }

    @Test
    void json_is_compared_by_path_and_its_numbers_as_they_are_written() {
        chromium.open(index, "#/test/sample.compares()");
        chromium.find(".paths");

        assertThat(chromium.texts(".paths tbody tr"))
                .containsExactly(
                        "$.id 12345678901234567890 12345678901234567891", "$.n 1.0 1", "$.beds[2] not there 3");
        assertThat(chromium.text(".failure")).contains("3 values the same");
    }

    @Test
    void tests_of_a_reason_are_filtered_by_its_id_and_called_by_its_title() {
        FailureReason reason = FailureReason.of(run).stream()
                .filter(one -> one.tests().get(0).name().equals("lends basil"))
                .findFirst()
                .orElseThrow();

        chromium.open(index, "#/tests?reason=" + reason.id());

        assertThat(chromium.text(".found .word")).isEqualTo("reason: " + reason.title() + " ×");
        assertThat(chromium.texts(".row-line .name")).containsExactly("lends basil");
    }
}
