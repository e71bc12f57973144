package dev.verbale.selenium;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowable;

import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.Verbale;
import dev.verbale.event.ExchangeMade;
import dev.verbale.results.Entry;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.Outcome;
import dev.verbale.vocabulary.StepKind;
import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.openqa.selenium.By;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.NoSuchElementException;
import org.openqa.selenium.TakesScreenshot;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.WebDriverException;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.support.events.EventFiringDecorator;
import org.openqa.selenium.support.ui.WebDriverWait;

/** What a real browser gives when something fails. */
class BrowserEvidenceTest extends Recorded {

    private final WebDriver driver = VerbaleSelenium.watch(chromium);

    @Test
    void a_failing_step_has_all_that_the_browser_showed_said_and_asked() throws Exception {
        garden.page("/bed", "<title>Bed</title><p>Carrots</p>");
        driver.get(garden.page(
                "/rota",
                "<!DOCTYPE html><title>Rota</title><h1>Rota</h1><iframe src=/bed></iframe><img src=/gone.png><script>"
                        + "localStorage.setItem('session-token','t0psecret');console.warn('it rains',2);"
                        + "setTimeout(()=>{window.ready=1;seeds.count()},0)</script>"));
        new WebDriverWait(chromium, Duration.ofSeconds(30)).until(d -> chromium.executeScript("return window.ready"));

        assertThatThrownBy(() -> Verbale.step(
                        "Lend", () -> driver.findElement(By.id("lend")).click()))
                .isInstanceOf(NoSuchElementException.class);
        List<Entry> entries = end(TestEnd.passed());

        Entry.StepEntry step = (Entry.StepEntry) entries.get(entries.size() - 1);
        assertThat(texts(step.entries()))
                .singleElement()
                .asString()
                .matches(
                        "The browser was at http://127.0.0.1:\\d+/rota, titled \"Rota\". In its local storage: session-token");
        assertThat(names(step.entries()))
                .startsWith("screenshot", "page source")
                .endsWith("console", "network", "video")
                .anyMatch(name -> name.matches("source of frame http://127.0.0.1:\\d+/bed"));
        assertThat(content(step.entries(), "screenshot")).startsWith("\u0089PNG");
        assertThat(content(step.entries(), "page source"))
                .startsWith("<!DOCTYPE html>")
                .contains("<h1>Rota</h1>");
        assertThat(content(step.entries(), "console"))
                .contains("it rains 2", "seeds is not defined", "\"level\":\"error\"", "/rota:1");
        assertThat(content(step.entries(), "network")).contains("/gone.png", "\"status\":404", "\"type\":\"image\"");
        assertThat(step.entries().toString()).doesNotContain("t0psecret");
    }

    @Test
    void what_the_page_fetches_is_an_exchange_of_its_test() throws Exception {
        garden.page("/seeds.json", "{\"seed\":\"Kresse \u00e4\",\"token\":\"t0psecret\"}");
        driver.get(garden.page(
                "/seeds",
                "<meta charset=utf-8><script>fetch('/seeds.json?api_key=k3y',{method:'POST',body:JSON.stringify("
                        + "{seed:'Basil',password:'hunter2'})}).then(r=>r.text()).then(()=>window.ready=1)</script>"));
        new WebDriverWait(chromium, Duration.ofSeconds(30)).until(d -> chromium.executeScript("return window.ready"));
        end(TestEnd.passed());

        ExchangeMade made = awaitExchange();
        assertThat(made.request().method() + " " + made.request().url().replaceFirst(".*(?=/seeds)", "") + " "
                        + made.status())
                .isEqualTo("POST /seeds.json?api_key=[masked] 200");
        assertThat(made.client()).isEqualTo("Chromium");
        assertThat(made.request().body().text()).isEqualTo("{\"seed\":\"Basil\",\"password\":\"[masked]\"}");
        assertThat(made.response().body().text()).isEqualTo("{\"seed\":\"Kresse \u00e4\",\"token\":\"[masked]\"}");
        assertThat(made.timing().parts()).containsKey("first byte");
    }

    /** It is written when the browser has handed the body over, which may be after the test. */
    private ExchangeMade awaitExchange() throws IOException {
        long until = System.nanoTime() + Duration.ofSeconds(30).toNanos();
        while (System.nanoTime() < until)
            for (Entry entry : result(key).entries())
                if (entry instanceof Entry.ExchangeEntry exchange) return exchange.made();
        throw new AssertionError("no exchange was written");
    }

    @Test
    void a_failure_says_what_failed_and_not_how_selenium_was_built() throws Exception {
        driver.get(garden.page("/bare", "<title>Bare</title>"));
        Throwable missing = catchThrowable(() -> driver.findElement(By.id("lend")));
        Throwable waited = catchThrowable(() -> new WebDriverWait(driver, Duration.ofMillis(100))
                .until(d -> d.getTitle().equals("Full")));
        recorder.startStep("find").failed(missing);
        recorder.startStep("wait").failed(waited);
        List<Entry> entries = end(TestEnd.passed());

        assertThat(failures(entries).get(0)).startsWith("no such element").endsWith("\"selector\":\"#lend\"}");
        assertThat(failures(entries).get(1))
                .startsWith("Expected condition failed: waiting for")
                .contains("(a lambda)")
                .endsWith("seconds with 500 milliseconds interval)");
    }

    @Test
    void a_wait_that_ran_out_and_an_element_that_was_not_found_are_the_steps_that_failed() throws Exception {
        driver.get(garden.page("/bare", "<title>Bare</title>"));
        Step outer = recorder.startStep("wait");
        Throwable waited = catchThrowable(() -> new WebDriverWait(driver, Duration.ofMillis(200), Duration.ofMillis(40))
                .until(d -> d.findElement(By.id("lend"))));
        outer.failed(waited);
        Step looking = recorder.startStep("look");
        looking.failed(catchThrowable(() -> driver.findElement(By.id("gone"))));
        Step waiting = recorder.startStep("wait and fail for another reason");
        new WebDriverWait(driver, Duration.ofSeconds(30), Duration.ofMillis(40))
                .until(d -> d.getTitle().equals("Bare"));
        waiting.failed(new AssertionError("wrong title"));

        List<Entry.StepEntry> steps = end(TestEnd.passed()).stream()
                .filter(entry -> entry instanceof Entry.StepEntry step && step.kind() == StepKind.ACTION)
                .map(entry -> (Entry.StepEntry) entry)
                .toList();

        Entry.StepEntry wait = browserStep(steps.get(0));
        assertThat(wait.name()).isEqualTo("wait for *#lend*");
        assertThat(wait.outcome()).isEqualTo(Outcome.ERRORED);
        assertThat(wait.failure()).isNotNull();
        assertThat(wait.at().plus(wait.duration()))
                .isBefore(steps.get(0).at().plus(steps.get(0).duration()));
        Entry.StepEntry find = browserStep(steps.get(1));
        assertThat(find.name()).isEqualTo("find *#gone*");
        assertThat(find.failure().message()).contains("no such element");
        assertThat(steps.get(2).entries())
                .noneMatch(entry -> entry instanceof Entry.StepEntry step && step.failure() != null);
    }

    private static Entry.StepEntry browserStep(Entry.StepEntry outer) {
        return outer.entries().stream()
                .filter(entry -> entry instanceof Entry.StepEntry step && step.outcome() == Outcome.ERRORED)
                .map(entry -> (Entry.StepEntry) entry)
                .findFirst()
                .orElseThrow();
    }

    private static List<String> failures(List<Entry> entries) {
        return entries.stream()
                .filter(entry -> entry instanceof Entry.StepEntry step
                        && step.kind() == StepKind.ACTION
                        && step.failure() != null)
                .map(entry -> ((Entry.StepEntry) entry).failure().message())
                .toList();
    }

    @Test
    void an_open_dialog_stays_open_and_what_was_before_it_is_shown() throws Exception {
        driver.get(garden.page("/swap", "<title>Swap</title><button onclick=\"confirm('Swap?')\">Swap</button>"));
        driver.findElement(By.tagName("button")).click();

        recorder.captureEvidence(new AssertionError("not swapped"));

        assertThat(chromium.switchTo().alert().getText()).as("still open").isEqualTo("Swap?");
        chromium.switchTo().alert().dismiss();
        List<Entry> entries = end(TestEnd.passed());
        assertThat(texts(entries).get(0)).isEqualTo("The browser shows a dialog: \"Swap?\"");
        assertThat(attachments(entries).get(0).stored().mediaType()).isEqualTo("image/jpeg");
    }

    @Test
    void a_page_that_is_busy_costs_no_more_than_the_time_that_is_given() throws Exception {
        driver.get(garden.page("/busy", "<title>Busy</title><p>Digging</p>"));
        chromium.executeScript("setTimeout(() => { fetch('/digging'); const until = Date.now() + 12000;"
                + " while (Date.now() < until); }, 50)");
        garden.awaitRequest("/digging");

        long from = System.nanoTime();
        recorder.captureEvidence(new AssertionError("dug for too long"));
        Duration duration = Duration.ofNanos(System.nanoTime() - from);
        List<Entry> entries = end(TestEnd.passed());

        assertThat(duration).isLessThan(Duration.ofSeconds(11));
        assertThat(texts(entries))
                .contains("The page did not answer in time, as one that is busy does not: the rest is missing.");
        assertThat(names(entries)).contains("screenshot", "video");
    }

    @Test
    void other_windows_are_shown_too_and_the_drivers_own_comes_first() throws Exception {
        driver.get(garden.page("/one", "<title>One</title>"));
        String first = driver.getWindowHandle();
        driver.switchTo().newWindow(org.openqa.selenium.WindowType.TAB);
        driver.get(garden.page("/two", "<title>Two</title>"));

        recorder.captureEvidence(new AssertionError("weeds"));
        chromium.close();
        chromium.switchTo().window(first);
        List<Entry> entries = end(TestEnd.passed());

        assertThat(texts(entries).get(0)).contains("/two, titled \"Two\"");
        assertThat(texts(entries).get(1)).contains("/one, titled \"One\" of another window");
        assertThat(names(entries))
                .contains("screenshot", "screenshot of another window", "page source of another window");
    }

    @Test
    void a_failure_after_the_browser_closed_has_what_it_showed_last() throws Exception {
        WebDriver shortLived = VerbaleSelenium.watch(Garden.browser());
        shortLived.get(garden.page("/last", "<title>Last</title><h1>Asters</h1>"));
        shortLived.quit();

        List<Entry> entries = end(TestEnd.threw(new AssertionError("after quit")));

        assertThat(texts(entries).get(0)).startsWith("The browser was closed before this failure");
        assertThat(content(entries, "page source")).contains("Asters");
        assertThat(names(entries)).endsWith("video");
    }

    @Test
    void a_failure_after_the_last_window_closed_has_what_it_showed_last() throws Exception {
        WebDriver shortLived = VerbaleSelenium.watch(Garden.browser());
        shortLived.get(garden.page("/last", "<title>Last</title><h1>Asters</h1>"));
        String first = shortLived.getWindowHandle();
        shortLived.switchTo().newWindow(org.openqa.selenium.WindowType.TAB).close();
        recorder.captureEvidence(new AssertionError("one window is left"));
        shortLived.switchTo().window(first).close();

        List<Entry> entries = end(TestEnd.threw(new AssertionError("none is left")));
        shortLived.quit();

        assertThat(texts(entries).stream().filter(text -> text.startsWith("The browser was closed before")))
                .hasSize(1);
        assertThat(names(entries).stream().filter(name -> name.equals("page source")))
                .hasSize(1);
        assertThat(content(entries, "page source")).contains("Asters");
    }

    @Test
    void a_browser_that_closed_in_another_test_is_not_asked() throws Exception {
        WebDriver shortLived = VerbaleSelenium.watch(Garden.browser());
        shortLived.get(garden.page("/last", "<title>Last</title>"));
        shortLived.quit();
        end(TestEnd.passed());

        Scope other = begin("after the browser");
        recorder.endTest(other, TestEnd.threw(new AssertionError("nothing")));

        assertThat(result("after the browser").entries()).isEmpty();
        assertThat(names(end(TestEnd.passed())))
                .as("nor was a look kept that nobody needs")
                .isEmpty();
    }

    @Test
    void a_dead_browser_and_a_crashed_page_are_told() throws Exception {
        ChromeDriver dead = Garden.browser();
        VerbaleSelenium.register(dead);
        dead.quit();
        ChromeDriver crashing = Garden.browser();
        VerbaleSelenium.register(crashing);
        assertThatThrownBy(() -> crashing.get("chrome://crash")).isInstanceOf(WebDriverException.class);

        recorder.captureEvidence(new AssertionError("without a browser"));
        crashing.quit();

        assertThat(texts(end(TestEnd.passed())))
                .contains("The browser is gone: its connection is closed.", "The page has crashed.");
    }

    @Test
    void a_driver_without_a_debugging_address_gives_what_drivers_give() throws Exception {
        WebDriver plain = new EventFiringDecorator<>(WebDriver.class).decorate(chromium); // hides what it can do
        chromium.get(garden.page("/plain", "<title>Plain</title><button onclick=\"confirm('Swap?')\">Swap</button>"));
        var inspector = new DriverInspector(plain);
        VerbaleSelenium.register(chromium);

        recorder.register(new dev.verbale.EvidenceSource() {
            @Override
            public String name() {
                return "plain";
            }

            @Override
            public void capture(dev.verbale.Evidence evidence) {
                inspector.snapshot(Duration.ofSeconds(5), false).writeTo(evidence);
            }
        });
        chromium.findElement(By.tagName("button")).click();
        recorder.captureEvidence(new AssertionError("with a dialog"));
        assertThat(chromium.switchTo().alert().getText()).as("still open").isEqualTo("Swap?");
        chromium.switchTo().alert().accept();
        recorder.captureEvidence(new AssertionError("without one"));
        List<Entry> entries = end(TestEnd.passed());

        assertThat(texts(entries)).anyMatch(text -> text.contains("There is no screenshot: taking it would dismiss"));
        assertThat(names(entries).stream().filter("page source"::equals)).hasSize(2);
    }

    /** A driver as one of another browser is: nothing of it but what every driver can. */
    private static WebDriver ofAnotherBrowser(ChromeDriver real) {
        return (WebDriver) Proxy.newProxyInstance(
                WebDriver.class.getClassLoader(),
                new Class<?>[] {WebDriver.class, TakesScreenshot.class, JavascriptExecutor.class},
                (proxy, method, arguments) -> {
                    try {
                        return method.invoke(real, arguments);
                    } catch (InvocationTargetException thrown) {
                        throw thrown.getCause();
                    }
                });
    }

    @Test
    void another_browser_has_a_video_of_a_screenshot_after_each_action_and_its_passwords_are_masked() throws Exception {
        ChromeDriver real = Garden.browser();
        WebDriver other = VerbaleSelenium.watch(ofAnotherBrowser(real));
        other.get(garden.page(
                "/other",
                "<title>Other</title><input type=password id=p><button id=b onclick=\"confirm('Sure?')\">Go</button>"));
        other.findElement(By.id("p")).sendKeys("radish-46");
        other.findElement(By.id("b")).click();
        assertThat(real.switchTo().alert().getText()).as("still open").isEqualTo("Sure?");
        other.switchTo().alert().accept();
        recorder.captureEvidence(new AssertionError("weeds"));
        other.quit();
        List<Entry> entries = end(TestEnd.passed());

        assertThat(names(entries)).containsExactly("screenshot", "page source", "video");
        assertThat(steps(entries))
                .contains("type [masked] into *#p*", "click *#b*", "accept the dialog", "close the browser");
        assertThat(entries.toString()).doesNotContain("radish-46");
    }

    @Test
    void a_test_that_did_not_use_the_browser_has_no_screenshot_of_it() throws Exception {
        driver.getTitle();
        recorder.endTest(test, TestEnd.passed());
        key = key + " without";
        test = begin(key);
        recorder.startStep("uses nothing").failed(new AssertionError("nothing"));

        List<Entry> without = end(TestEnd.passed());
        assertThat(without).hasSize(1);
        assertThat(attachments(without)).isEmpty();
    }
}
