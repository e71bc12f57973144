package dev.verbale.selenium;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.Scope;
import dev.verbale.Verbale;
import dev.verbale.results.Entry;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.File;
import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.NoSuchElementException;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.remote.RemoteWebDriver;

/** A browser on the other side of a wire: a chromedriver is its remote end, as a grid's node is. */
@Tag("newer-jdk")
class RemoteDriverTest {

    private final AdapterRecorder recorder = AdapterRecorder.current();

    @Test
    void actions_are_steps_and_a_failure_has_its_screenshot_and_source() throws Exception {
        ChromeDriverService remote = new ChromeDriverService.Builder()
                .usingDriverExecutable(new File("/usr/bin/chromedriver"))
                .usingAnyFreePort()
                .build();
        remote.start();
        try (var garden = new Garden()) {
            String page = garden.page("/rota", "<title>Rota</title><button id=swap>Swap</button>");

            List<Entry> entries = use(remote, page);

            assertThat(Recorded.steps(entries))
                    .startsWith("open " + page, "click *#swap*")
                    .anyMatch(step -> step.startsWith("Lend: "));
            assertThat(Recorded.names(entries)).contains("screenshot", "page source");
            assertThat(Recorded.content(entries, "screenshot")).startsWith("\u0089PNG");
            assertThat(Recorded.content(entries, "page source")).contains("Swap");
        } finally {
            remote.stop();
        }
    }

    private List<Entry> use(ChromeDriverService remote, String page) throws Exception {
        String key = "RemoteDriverTest";
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of(key, key)
                        .className("sample.Remote")
                        .methodName(key)
                        .build());
        WebDriver driver = VerbaleSelenium.watch(new RemoteWebDriver(remote.getUrl(), Garden.options()));
        try {
            driver.get(page);
            driver.findElement(By.id("swap")).click();
            assertThatThrownBy(() -> Verbale.step(
                            "Lend", () -> driver.findElement(By.id("lend")).click()))
                    .isInstanceOf(NoSuchElementException.class);
        } finally {
            driver.quit();
        }
        recorder.endTest(test, TestEnd.passed());
        return Recorded.result(key).entries();
    }
}
