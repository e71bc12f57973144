package dev.verbale.viewer;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.RecorderOptions;
import dev.verbale.report.PageOptions;
import dev.verbale.results.SampleRun;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.Outcome;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.time.Duration;
import java.util.logging.Level;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.logging.LogEntry;
import org.openqa.selenium.logging.LogType;
import org.openqa.selenium.logging.LoggingPreferences;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Somebody looks at runs while they go, in a real browser. */
class LiveViewTest {

    @TempDir
    Path root;

    private Viewer viewer;
    private ChromeDriver browser;

    @BeforeEach
    void open() throws Exception {
        viewer = Viewer.start(new ViewerOptions(
                root, new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), null, run -> PageOptions.PLAIN));
        var options = new ChromeOptions();
        options.setBinary(System.getProperty("tests.browser", "/usr/bin/chromium"));
        options.addArguments("--headless=new", "--no-sandbox", "--disable-gpu", "--window-size=1280,943");
        var logs = new LoggingPreferences();
        logs.enable(LogType.BROWSER, Level.ALL);
        options.setCapability("goog:loggingPrefs", logs);
        browser = new ChromeDriver(
                new ChromeDriverService.Builder()
                        .usingDriverExecutable(Path.of("/usr/bin/chromedriver").toFile())
                        .usingAnyFreePort()
                        .build(),
                options);
    }

    @AfterEach
    void close() {
        browser.quit();
        viewer.close();
    }

    private void waitFor(String script) {
        new WebDriverWait(browser, Duration.ofSeconds(30), Duration.ofMillis(20))
                .until(any -> Boolean.TRUE.equals(browser.executeScript("return " + script)));
    }

    private static void test(AdapterRecorder recorder, int number, TestEnd end) {
        String name = "test " + number;
        recorder.endTest(
                recorder.startTest(recorder.run(), TestDescriptor.of(name, name).build()), end);
    }

    @Test
    void runs_come_into_the_list_and_a_page_goes_on_without_being_loaded_again() throws Exception {
        SampleRun.in(root, "2026-11-24_100000_aaaa").test("swaps", Outcome.PASSED, null);
        browser.get(viewer.address().toString());
        waitFor("document.querySelectorAll('tbody tr').length === 1");
        browser.executeScript("window.same = true; document.querySelector('tbody a').focus()");

        AdapterRecorder recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        for (int i = 0; i < 60; i++) test(recorder, i, TestEnd.passed());
        waitFor("document.querySelectorAll('tbody tr').length === 2");
        waitFor("document.querySelector('tbody tr').innerText.includes('60 tests')");
        assertThat(browser.findElement(By.cssSelector("tbody tr")).getText()).contains("going");
        assertThat(browser.executeScript("return window.same && document.activeElement.href"))
                .as("what somebody is at stays")
                .asString()
                .contains("2026-11-24_100000_aaaa");

        browser.executeScript("document.querySelector('tbody tr a').same = true");
        test(recorder, 60, TestEnd.passed());
        waitFor("document.querySelector('tbody tr').innerText.includes('61 tests')");
        assertThat(browser.executeScript("return document.querySelector('tbody tr a').same"))
                .as("a link that somebody may be clicking stays")
                .isEqualTo(true);
        browser.findElement(By.cssSelector("tbody tr a")).click();
        waitFor("document.querySelector('h1') !== null");
        browser.executeScript("location.hash = '#/tests?group=nothing'");
        waitFor("document.querySelectorAll('.row-line').length > 10");
        browser.executeScript("window.same = true; window.scrollTo(0, 500)");
        Object before = browser.executeScript("return window.scrollY");
        test(recorder, 61, TestEnd.threw(new AssertionError("no seeds")));
        waitFor("document.body.innerText.includes('62 tests')");
        assertThat(browser.executeScript("return window.same")).isEqualTo(true);
        assertThat(browser.executeScript("return window.scrollY")).isEqualTo(before);
        assertThat(browser.manage().logs().get(LogType.BROWSER).getAll().stream()
                        .filter(entry -> entry.getLevel().intValue() >= Level.SEVERE.intValue())
                        .map(LogEntry::getMessage)
                        .filter(message -> !message.contains("favicon")))
                .isEmpty();
    }
}
