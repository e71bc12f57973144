package dev.verbale.selenium.difficult;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.Scope;
import dev.verbale.Verbale;
import dev.verbale.browser.difficult.Site;
import dev.verbale.browser.difficult.Transcript;
import dev.verbale.selenium.Garden;
import dev.verbale.selenium.VerbaleSelenium;
import dev.verbale.selenium.difficult.Difficulty.Needs;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.File;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.jspecify.annotations.Nullable;
import org.openqa.selenium.NoAlertPresentException;
import org.openqa.selenium.PageLoadStrategy;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebDriverException;
import org.openqa.selenium.WindowType;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.remote.RemoteWebDriver;

/** One of two: bare drivers, or watched ones in recorded tests that fail now and then. */
final class Side implements AutoCloseable {

    /** Nothing that is done here takes so long, unless it hangs. */
    private static final long HANGS_AFTER_SECONDS = 100;

    private final boolean watched;
    private final AdapterRecorder recorder = AdapterRecorder.current();
    private @Nullable WebDriver shared;
    private @Nullable ChromeDriverService remote;

    Side(boolean watched) {
        this.watched = watched;
        System.setProperty("webdriver.chrome.driver", "/usr/bin/chromedriver");
    }

    /** What {@code difficulty} comes to here; it is under way when this returns. */
    Callable<Transcript> meets(Difficulty difficulty, Site site) throws Exception {
        WebDriver driver = difficulty.needs() == Needs.ANY ? shared() : open(difficulty.needs());
        var transcript = new Transcript(watched ? Side::failing : () -> {});
        var work = new FutureTask<Void>(
                () -> inTest(difficulty, () -> difficulty.deed().to(driver, site, transcript)));
        var thread = new Thread(work, "test");
        thread.setDaemon(true);
        thread.start();
        return () -> {
            try {
                work.get(HANGS_AFTER_SECONDS, TimeUnit.SECONDS);
            } catch (TimeoutException hangs) {
                thread.interrupt();
                shared = null;
                throw new AssertionError(
                        "It hangs" + (watched ? ", watched," : ", bare,") + " after " + transcript.lines(), hangs);
            }
            if (difficulty.needs() != Needs.ANY) driver.quit();
            return transcript;
        };
    }

    private interface Work {
        void run() throws Exception;
    }

    private @Nullable Void inTest(Difficulty difficulty, Work work) throws Exception {
        if (!watched) {
            work.run();
            return null;
        }
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("difficult " + difficulty.name(), difficulty.name())
                        .build());
        try {
            work.run();
        } finally {
            recorder.endTest(test, TestEnd.threw(new AssertionError("as every test may end")));
        }
        return null;
    }

    /** A step that fails has its evidence taken, and the test goes on. */
    private static void failing() {
        assertThatThrownBy(() -> Verbale.step("Look", () -> {
                    throw new IllegalStateException("it rains");
                }))
                .isInstanceOf(IllegalStateException.class);
    }

    private WebDriver shared() {
        WebDriver open = shared;
        if (open == null) open = open(Needs.ANY);
        shared = open;
        fresh(open);
        return open;
    }

    /** One empty window, whatever was left. */
    private static void fresh(WebDriver driver) {
        try {
            driver.switchTo().alert().accept();
        } catch (NoAlertPresentException | org.openqa.selenium.NoSuchWindowException none) {
            // as it should be
        }
        List<String> before = List.copyOf(driver.getWindowHandles());
        if (before.size() == 1) {
            driver.switchTo().window(before.get(0)).get("about:blank");
            return;
        }
        driver.switchTo().window(before.get(0)).switchTo().newWindow(WindowType.TAB);
        String one = driver.getWindowHandle();
        for (String handle : before) {
            try {
                driver.switchTo().window(handle).close();
                driver.switchTo().alert().accept();
            } catch (WebDriverException closed) {
                // as it should be
            }
        }
        driver.switchTo().window(one);
    }

    private WebDriver open(Needs needs) {
        WebDriver driver;
        if (needs == Needs.REMOTE) {
            ChromeDriverService service = new ChromeDriverService.Builder()
                    .usingDriverExecutable(new File("/usr/bin/chromedriver"))
                    .usingAnyFreePort()
                    .build();
            remote = service;
            try {
                service.start();
            } catch (java.io.IOException broken) {
                throw new java.io.UncheckedIOException(broken);
            }
            driver = new RemoteWebDriver(service.getUrl(), options(needs));
        } else driver = new ChromeDriver(options(needs));
        return watched ? VerbaleSelenium.watch(driver) : driver;
    }

    private static ChromeOptions options(Needs needs) {
        ChromeOptions options = Garden.options();
        options.setExperimentalOption(
                "prefs", Map.of("download.default_directory", System.getProperty("java.io.tmpdir")));
        options.setCapability("goog:loggingPrefs", Map.of("browser", "ALL"));
        if (needs == Needs.EAGER) options.setPageLoadStrategy(PageLoadStrategy.EAGER);
        if (needs == Needs.NONE) options.setPageLoadStrategy(PageLoadStrategy.NONE);
        return options;
    }

    @Override
    public void close() {
        if (shared != null) shared.quit();
        if (remote != null) remote.stop();
    }
}
