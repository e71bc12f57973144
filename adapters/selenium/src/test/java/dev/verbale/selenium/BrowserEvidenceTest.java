package dev.verbale.selenium;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.Verbale;
import dev.verbale.recorder.Ending;
import dev.verbale.recorder.Identity;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;
import org.openqa.selenium.By;
import org.openqa.selenium.NoSuchElementException;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeOptions;

/** What a real browser gives when something fails. */
class BrowserEvidenceTest {

    private static ChromeDriver chromium;

    private final Recorder recorder = Recorder.current();
    private String key;
    private Scope test;

    @BeforeAll
    static void open_the_browser() {
        System.setProperty("webdriver.chrome.driver", "/usr/bin/chromedriver");
        chromium = new ChromeDriver(options());
    }

    private static ChromeOptions options() {
        var options = new ChromeOptions();
        options.setBinary("/usr/bin/chromium");
        options.addArguments("--headless=new", "--no-sandbox", "--disable-gpu", "--disable-background-networking");
        return options;
    }

    @AfterAll
    static void close_the_browser() {
        chromium.quit();
    }

    @BeforeEach
    void begin(TestInfo info) {
        key = info.getDisplayName();
        test = recorder.startTest(recorder.run(), new Identity(key, key, "sample.Browser", key, List.of()));
        chromium.get(page("<title>Rota</title><h1>Rota</h1><button onclick=\"confirm('Swap?')\">Swap</button>"));
    }

    @Test
    void a_failing_step_has_screenshot_source_address_and_title() throws Exception {
        WebDriver driver = VerbaleSelenium.watch(chromium);

        assertThatThrownBy(() -> Verbale.step("Lend", () -> {
                    driver.findElement(By.tagName("button")).isDisplayed();
                    driver.findElement(By.id("lend")).click();
                }))
                .isInstanceOf(NoSuchElementException.class);
        recorder.endTest(test, Ending.passed());

        var step = (Entry.StepEntry) result().entries().get(0);
        assertThat(texts(step.entries()))
                .singleElement()
                .asString()
                .contains("data:text/html")
                .contains("titled \"Rota\"");
        List<Entry.PaperEntry> papers = papers(step.entries());
        assertThat(papers).extracting(Entry.PaperEntry::name).containsExactly("screenshot", "page source");
        assertThat(papers.get(0).nameInJournal())
                .isEqualTo(
                        "tests/Browser/a-failing-step-has-screenshot-source-address-and-title-testi/01-screenshot.png"
                                .replace("-testi", ""));
        assertThat(bytes(papers.get(0))).startsWith(new byte[] {(byte) 0x89, 'P', 'N', 'G'});
        assertThat(new String(bytes(papers.get(1)), StandardCharsets.UTF_8)).contains("<h1>Rota</h1>");
    }

    @Test
    void an_open_dialog_stays_open_and_its_text_is_told() throws Exception {
        WebDriver driver = VerbaleSelenium.watch(chromium);
        driver.findElement(By.tagName("button")).click();

        recorder.takeEvidence(new AssertionError("not swapped"));

        assertThat(chromium.switchTo().alert().getText()).as("still open").isEqualTo("Swap?");
        chromium.switchTo().alert().dismiss();
        recorder.endTest(test, Ending.passed());
        assertThat(texts(result().entries())).singleElement().asString().contains("dialog: \"Swap?\"");
        assertThat(papers(result().entries())).isEmpty();
    }

    @Test
    void an_announced_driver_keeps_its_class_and_gives_evidence_once() throws Exception {
        VerbaleSelenium.announce(chromium);
        VerbaleSelenium.announce(chromium);

        recorder.endTest(test, Ending.threw(new AssertionError("weeds")));

        assertThat(papers(result().entries())).hasSize(2);
    }

    @Test
    void a_test_that_did_not_use_the_browser_has_no_picture_of_it() throws Exception {
        WebDriver driver = VerbaleSelenium.watch(chromium);
        var elsewhere = new Thread(() -> driver.getTitle());
        elsewhere.start();
        elsewhere.join();
        recorder.endTest(test, Ending.passed());

        Scope other = recorder.startTest(recorder.run(), new Identity("other", "other", null, null, List.of()));
        recorder.startStep("uses nothing").failed(new AssertionError("nothing"));
        recorder.endTest(other, Ending.passed());

        TestResult read = run().tests().stream()
                .filter(result -> result.key().equals("other"))
                .findFirst()
                .orElseThrow();
        assertThat(((Entry.StepEntry) read.entries().get(0)).entries()).isEmpty();
    }

    @Test
    void a_browser_that_was_closed_is_not_asked_and_a_dead_one_is_noted() throws Exception {
        var shortLived = new ChromeDriver(options());
        WebDriver driver = VerbaleSelenium.watch(shortLived);
        driver.getTitle();
        driver.quit();
        recorder.takeEvidence(new AssertionError("after quit"));
        assertThat(result().entries()).isEmpty();

        var dead = new ChromeDriver(options());
        VerbaleSelenium.announce(dead);
        dead.quit();
        recorder.takeEvidence(new AssertionError("without a browser"));
        recorder.endTest(test, Ending.passed());

        assertThat(texts(result().entries())).singleElement().asString().startsWith("No evidence from browser: ");
    }

    private static String page(String html) {
        return "data:text/html;base64," + Base64.getEncoder().encodeToString(html.getBytes(StandardCharsets.UTF_8));
    }

    private Run run() throws IOException {
        return RunReader.read(Path.of(System.getProperty("verbale.root")));
    }

    private TestResult result() throws IOException {
        return run().tests().stream()
                .filter(result -> result.key().equals(key))
                .findFirst()
                .orElseThrow();
    }

    private static byte[] bytes(Entry.PaperEntry paper) throws IOException {
        Path file = paper.file();
        assertThat(file).isNotNull();
        return Files.readAllBytes(file);
    }

    private static List<String> texts(List<Entry> entries) {
        List<String> texts = new ArrayList<>();
        for (Entry entry : entries) if (entry instanceof Entry.NoteEntry note) texts.add(note.text());
        return texts;
    }

    private static List<Entry.PaperEntry> papers(List<Entry> entries) {
        List<Entry.PaperEntry> papers = new ArrayList<>();
        for (Entry entry : entries) if (entry instanceof Entry.PaperEntry paper) papers.add(paper);
        return papers;
    }
}
