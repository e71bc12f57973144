package dev.verbale.results.element;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.AttachmentStored;
import dev.verbale.event.StepEnded;
import dev.verbale.event.StepStarted;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.results.SampleRun;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.AttachmentKind;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What a page had instead of what a test looked for. */
class MissingElementTest {

    private static final String SOURCE = """
            <html><body><nav><a href='/'>Plots</a><a href='/rota'>Rota</a></nav>
            <table><tr data-seed='Basil'><td class='sachets'>4</td><td class='lent'></td></tr></table>
            <form id='loan'><h2>Borrow seeds</h2><label>Seed <select name='seed'><option>Basil</option></select></label>
            <label>Neighbour <input name='neighbour'></label><button id='borrow-now' class='main'>Borrow</button>
            <button aria-label='Close the form'>×</button><p class='message error' role='status'></p></form>
            <form id='swap'><input name='firstDay'><input name='second-day'><button>Swap the days</button></form>
            </body></html>""";

    @TempDir
    Path root;

    /** The first one is what a person would take. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "#lend                                                    | a neighbour borrows basil | button#borrow-now",
                "#borrow                                                  | x                         | button#borrow-now",
                "#borrowNow                                               | x                         | button#borrow-now",
                "[name=first-day]                                         | x                         | input[name=firstDay]",
                "[name=secondDay]                                         | x                         | input[name=second-day]",
                ".message.bad                                             | x                         | p.message.error",
                "link “Rotas”                                             | x                         | a",
                "//button[text()='Swap days']                             | x                         | #swap button",
                "getByRole(AriaRole.BUTTON, setName(\"Borrow now\"))      | x                         | button#borrow-now",
                "getByText(\"Swap days\")                                 | x                         | #swap button",
                "locator(\"#loan-form\")                                  | x                         | form#loan",
            })
    void the_nearest_comes_first(String locator, String doing, String selector) {
        assertThat(NearestElements.of(SOURCE, locator, doing))
                .hasSizeBetween(1, 3)
                .first()
                .extracting(NearElement::selector)
                .isEqualTo(selector);
    }

    @ParameterizedTest
    @CsvSource({"#zzz", "[name=qqq]", "''", "((((", "//*[", "getByRole(", "#"})
    void nothing_is_near_what_nobody_knows(String locator) {
        assertThat(NearestElements.of(SOURCE, locator, "x")).isEmpty();
        assertThat(NearestElements.of("", locator, "x")).isEmpty();
        assertThat(NearestElements.of("<<<\u0000>&&&;", locator, "x")).isEmpty();
    }

    @Test
    void of_a_test_it_is_the_last_page_that_was_recorded() throws Exception {
        SampleRun run = SampleRun.in(root, "run");
        Files.writeString(run.path().resolve("first.html"), "<button id='lendIt'>Lend</button>");
        Files.writeString(run.path().resolve("last.html"), SOURCE);
        run.write(
                TestStarted.of(10, 1, "k", "borrows")
                        .className("T")
                        .methodName("borrows")
                        .thread("main")
                        .build(),
                source(11, "first.html"),
                source(12, "last.html"),
                TestEnded.of(20, 1, Outcome.ERRORED)
                        .failure(
                                SampleRun.failure(
                                        "org.openqa.selenium.NoSuchElementException",
                                        "no such element: Unable to locate element: {\"method\":\"css selector\",\"selector\":\"#lend\"}"))
                        .build());

        MissingElement missing = MissingElement.of(run.read().tests().get(0));

        assertThat(missing.locator()).isEqualTo("#lend");
        assertThat(missing.nearest().get(0))
                .isEqualTo(new NearElement("button#borrow-now", "Borrow", "is named after what the test does"));
    }

    @Test
    void what_the_locator_found_when_the_test_passed_comes_first_whatever_it_is_called_now() throws Exception {
        SampleRun run = SampleRun.in(root, "run");
        Files.writeString(
                run.path().resolve("page.html"),
                "<button id='lend-now'>Look around</button><button id='x7'>Take home</button><button id='lends'>Lend</button>");
        run.write(
                TestStarted.of(10, 1, "k", "borrows")
                        .className("T")
                        .methodName("borrows")
                        .thread("main")
                        .build(),
                source(11, "page.html"),
                TestEnded.of(20, 1, Outcome.ERRORED)
                        .failure(
                                SampleRun.failure(
                                        "org.openqa.selenium.NoSuchElementException",
                                        "no such element: Unable to locate element: {\"method\":\"css selector\",\"selector\":\"#lend\"}"))
                        .build());
        SampleRun good = SampleRun.in(root, "good")
                .write(
                        TestStarted.of(10, 1, "k", "borrows")
                                .className("T")
                                .methodName("borrows")
                                .thread("main")
                                .build(),
                        StepStarted.of(11, 2, StepKind.ACTION, "fill in *nothing* [#lend]")
                                .in(1)
                                .build(),
                        StepStarted.of(12, 3, StepKind.BROWSER, "click *Take home* [#lend]")
                                .in(2)
                                .build(),
                        StepEnded.of(13, 3, Outcome.PASSED).build(),
                        StepStarted.of(14, 4, StepKind.BROWSER, "click *Look around* [#other]")
                                .in(2)
                                .build(),
                        StepEnded.of(15, 4, Outcome.PASSED).build(),
                        StepEnded.of(16, 2, Outcome.PASSED).build(),
                        TestEnded.of(20, 1, Outcome.PASSED).build());

        TestResult failed = run.read().tests().get(0);
        assertThat(MissingElement.of(failed, good.read().tests().get(0))
                        .nearest()
                        .get(0))
                .isEqualTo(new NearElement("button#x7", "Take home", "has the text that it had in the good run"));
        assertThat(MissingElement.of(failed).nearest().get(0).selector()).isNotEqualTo("button#x7");
    }

    @Test
    void without_a_page_or_with_another_failure_there_is_none() throws Exception {
        SampleRun run = SampleRun.in(root, "run");
        run.test(
                "lost",
                Outcome.ERRORED,
                SampleRun.failure("org.openqa.selenium.NoSuchElementException", "no such element: By.id: lend"));
        run.test("failed", Outcome.FAILED, SampleRun.failure("java.lang.AssertionError", "no kale"));
        run.test("passed", Outcome.PASSED, null);

        assertThat(run.read().tests())
                .hasSize(3)
                .allSatisfy(test -> assertThat(MissingElement.of(test)).isNull());
    }

    private static AttachmentStored source(long at, String file) {
        var stored = new AttachmentStored.StoredFile(file, "text/html", 1, null);
        return AttachmentStored.of(at, 1, "page source", AttachmentKind.PAGE_SOURCE, stored)
                .build();
    }
}
