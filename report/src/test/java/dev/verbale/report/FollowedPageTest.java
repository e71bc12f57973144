package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;

import com.deque.html.axecore.selenium.AxeBuilder;
import dev.verbale.event.JournalEnded;
import dev.verbale.event.LogWritten;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.results.SampleRun;
import dev.verbale.results.progress.RunProgress;
import dev.verbale.results.progress.RunProgress.Expectation;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A page that is open in a browser while it is written again and again. */
class FollowedPageTest {

    private static Chromium chromium;

    @TempDir
    Path root;

    private int number;

    @BeforeAll
    static void open_the_browser() {
        chromium = new Chromium();
    }

    @AfterAll
    static void close_the_browser() {
        chromium.close();
    }

    private Path write(SampleRun sample) throws IOException {
        RunProgress progress = RunProgress.of(sample.readOpen());
        var going = new PageProgress(progress, new Expectation(4, Duration.ofMinutes(1)), ++number);
        return Page.write(progress.ended(), root.resolve("page"), PageOptions.PLAIN.withProgress(going));
    }

    private static TestStarted begun(long at, int id, String name) {
        return TestStarted.of(at, id, "k." + name, name)
                .className("s.T")
                .methodName(name)
                .thread("main")
                .build();
    }

    @Test
    void the_summary_and_the_list_follow_and_the_last_page_is_as_any_other() throws Exception {
        SampleRun sample =
                SampleRun.in(root, "run").test("grows", Outcome.PASSED, null).write(begun(200_000, 1, "waters"));
        Path index = write(sample);
        chromium.open(index, "");
        assertThat(chromium.text(".sentence")).isEqualTo("So far the one test passed.");
        assertThat(chromium.text(".going"))
                .contains("1 test of about 4 after", "of about 1 min 00 s", "waters in worker-1");
        assertThat(chromium.find(".going progress").getAttribute("value")).isEqualTo("0.25");
        assertThat(new AxeBuilder().analyze(chromium.driver()).getViolations())
                .extracting(rule -> rule.getId())
                .isEmpty();

        sample.write(TestEnded.of(300_000, 1, Outcome.FAILED)
                .failure(SampleRun.failure("java.lang.AssertionError", "no rain"))
                .build());
        write(sample);
        chromium.waitFor(
                "return document.querySelector('.sentence').textContent.startsWith('So far 1 of 2 tests did not')");
        chromium.script("location.hash = '#/tests'");
        chromium.waitFor("return document.querySelectorAll('.row-line').length === 2");
        sample.write(
                begun(400_000, 2, "digs"),
                TestEnded.of(500_000, 2, Outcome.PASSED).build());
        write(sample);
        chromium.waitFor("return document.querySelectorAll('.row-line').length === 3");

        sample.write(new JournalEnded(600_000, 0, Map.of(), 0));
        Page.write(sample.read(), root.resolve("page"));
        chromium.script("location.hash = '#/'");
        chromium.waitFor("return document.querySelector('.sentence')?.textContent.startsWith('1 of 3 tests')");
        assertThat(chromium.script("return document.querySelector('.going')")).isNull();
        assertThat(chromium.script("return performance.getEntriesByType('navigation').length"))
                .as("it was never loaded anew")
                .isEqualTo(1L);
    }

    @Test
    void a_test_that_is_read_stays_the_same_one_when_others_come_before_it() throws Exception {
        SampleRun sample = SampleRun.in(root, "run")
                .write(begun(1_000, 1, "is slow"))
                .write(begun(2_000, 2, "digs"))
                .write(LogWritten.of(2_500, 2, "deep enough").thread("main").build())
                .write(TestEnded.of(3_000, 2, Outcome.PASSED).build());
        chromium.open(write(sample), "#/test/k.digs");
        assertThat(chromium.text(".log-line")).endsWith("deep enough");

        sample.write(
                LogWritten.of(3_500, 1, "slowly").thread("main").build(),
                TestEnded.of(4_000, 1, Outcome.PASSED).build());
        chromium.script("window.seen = []; new MutationObserver(() => window.seen.push("
                + "document.querySelector('h1')?.textContent.trim() + '|' + [...document.querySelectorAll('.log-line')].map(l => l.textContent).join()))"
                + ".observe(document.body, { subtree: true, childList: true, characterData: true })");
        write(sample);
        chromium.waitFor("return document.querySelector('.navigation a')?.textContent.includes('Previous')");

        chromium.waitFor("return document.querySelector('.log-line')?.textContent.includes('deep enough')");
        assertThat(chromium.script("return window.seen.filter(one => one.includes('slowly'))"))
                .as("never another test's lines under its name")
                .asInstanceOf(org.assertj.core.api.InstanceOfAssertFactories.LIST)
                .isEmpty();
        assertThat(chromium.text(".test h1")).isEqualTo("digs");
    }
}
