package dev.verbale.playwright;

import static dev.verbale.playwright.VerbalePlaywright.assertThat;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.TimeoutError;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import dev.verbale.Scope;
import dev.verbale.event.ExchangeMade;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestResult;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.AttachmentKind;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** A real page, driven by Playwright. */
class PlaywrightTest {

    private static Playwright playwright;
    private static Browser browser;

    private final AdapterRecorder recorder = AdapterRecorder.current();
    private String key;
    private Scope test;
    private Page page;

    @BeforeAll
    static void open_the_browser() {
        playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        browser = playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(List.of("--no-sandbox", "--disable-gpu")));
    }

    @AfterAll
    static void close_the_browser() {
        playwright.close();
    }

    @BeforeEach
    void begin(TestInfo info) {
        key = info.getTestMethod().orElseThrow().getName();
        test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of(key, key)
                        .className("sample.Page")
                        .methodName(key)
                        .build());
        page = VerbalePlaywright.watch(browser.newPage());
    }

    @Test
    void what_the_page_fetches_is_an_exchange_of_its_test() throws Exception {
        page.route(
                "https://orto.example/",
                route -> route.fulfill(new Route.FulfillOptions()
                        .setContentType("text/html")
                        .setBody("<script>fetch('/seeds',{method:'POST',body:'{\"password\":\"hunter2\"}'})"
                                + ".then(r=>r.text()).then(t=>document.title=t)</script>")));
        page.route(
                "https://orto.example/seeds",
                route -> route.fulfill(new Route.FulfillOptions()
                        .setContentType("application/json")
                        .setBody("{\"seed\":\"Basil\"}")));
        page.navigate("https://orto.example/");
        page.waitForFunction("document.title.includes('Basil')");
        page.title(); // whatever the browser has to tell comes before its response

        ExchangeMade made = end(TestEnd.passed()).stream()
                .filter(Entry.ExchangeEntry.class::isInstance)
                .map(entry -> ((Entry.ExchangeEntry) entry).made())
                .findFirst()
                .orElseThrow();
        assertThat(made.request().method() + " " + made.request().url() + " " + made.status())
                .isEqualTo("POST https://orto.example/seeds 200");
        assertThat(made.request().body().text()).isEqualTo("{\"password\":\"[masked]\"}");
        assertThat(made.response().body().text()).isEqualTo("{\"seed\":\"Basil\"}");
    }

    @Test
    void calls_are_steps_by_the_names_that_people_see() throws Exception {
        page.setContent(
                "<label>Neighbour <input></label><label>Day <select><option>Monday<option>Friday</select></label>"
                        + "<button>Swap</button><button>Water</button><ul><li>Basil<li>Kale</ul>");
        page.getByLabel("Neighbour").fill("Ada");
        page.getByLabel("Neighbour").press("Tab");
        page.getByLabel("Day").selectOption("Friday");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Swap"))
                .click();
        page.locator("ul")
                .locator("li")
                .filter(new Locator.FilterOptions().setHas(page.getByText("Kale")))
                .hover();
        page.locator("li").nth(1).describe("the kale").click();
        page.click("button");
        assertThatThrownBy(() -> page.getByText("Weeds").click(new Locator.ClickOptions().setTimeout(100)))
                .isInstanceOf(TimeoutError.class);
        assertThat(page.locator("li")).hasCount(2);
        assertThatThrownBy(() -> assertThat(page.locator("li"))
                        .not()
                        .hasCount(2, new LocatorAssertions.HasCountOptions().setTimeout(100)))
                .isInstanceOf(AssertionError.class);
        List<Entry> entries = end(TestEnd.passed());

        assertThat(steps(entries))
                .containsExactly(
                        "type 'Ada' into *Neighbour*",
                        "press Tab in *Neighbour*",
                        "choose 'Friday' in *Day*",
                        "click *Swap*",
                        "point at *li*",
                        "click *the kale*",
                        "click *button*",
                        "click *Weeds*: errored");
        assertThat(entries.stream()
                        .filter(Entry.CheckEntry.class::isInstance)
                        .map(one -> ((Entry.CheckEntry) one).name() + ": "
                                + ((Entry.CheckEntry) one).outcome().word()))
                .containsExactly("li has count '2': passed", "li not has count '2': failed");
    }

    @Test
    void a_typed_password_is_masked() throws Exception {
        page.setContent("<label>Code <input type=password></label><input id=b name=gate-token>");
        page.getByLabel("Code").fill("beetroot-44");
        page.locator("#b").pressSequentially("kohlrabi-45");
        recorder.log("beetroot-44 and kohlrabi-45");
        end(TestEnd.passed());

        String journal = Files.readString(recorder.folder().resolve("journals/worker-1.jsonl"));
        assertThat(journal).contains("type [masked] into *Code*").doesNotContain("beetroot-44", "kohlrabi-45");
    }

    @Test
    void a_failure_has_screenshot_sources_console_network_and_video() throws Exception {
        page.route(
                "**/rota",
                route -> route.fulfill(
                        new com.microsoft.playwright.Route.FulfillOptions()
                                .setContentType("text/html")
                                .setBody(
                                        "<title>Rota</title><h1>Rota</h1><iframe srcdoc='<p>Carrots</p>'></iframe><img src=/gone>"
                                                + "<script>console.warn('it rains'); setTimeout(() => { window.late = true; seeds.count(); }, 0)</script>")));
        page.navigate("http://orto.example/rota");
        page.waitForFunction("window.late");
        page.title(); // whatever the browser has to tell comes before its response
        end(TestEnd.threw(new AssertionError("weeds")));
        awaitVideo();
        List<Entry> entries = result().entries();

        assertThat(attachments(entries).stream().map(Entry.AttachmentEntry::kind))
                .containsExactly(
                        AttachmentKind.SCREENSHOT,
                        AttachmentKind.PAGE_SOURCE,
                        AttachmentKind.PAGE_SOURCE,
                        AttachmentKind.CONSOLE,
                        AttachmentKind.NETWORK,
                        AttachmentKind.VIDEO);
        assertThat(content(entries, 1)).contains("<h1>Rota</h1>");
        assertThat(content(entries, 2)).contains("Carrots");
        assertThat(content(entries, 3)).contains("it rains", "seeds is not defined");
        assertThat(content(entries, 4)).contains("http://orto.example/rota", "\"status\":200", "\"failure\":");
    }

    @Test
    void a_failure_after_the_page_closed_has_what_it_showed_last() throws Exception {
        page.setContent("<h1>Asters</h1>");
        page.close();
        List<Entry> entries = end(TestEnd.threw(new AssertionError("late")));

        assertThat(entries.toString()).contains("The page was closed before this failure");
        assertThat(content(entries, 1)).contains("Asters");
    }

    private void awaitVideo() throws Exception {
        long until = System.nanoTime() + Duration.ofSeconds(30).toNanos();
        while (!attachments(result().entries()).stream()
                .anyMatch(attachment -> attachment.kind().equals(AttachmentKind.VIDEO))) {
            assertThat(System.nanoTime()).as("the video comes").isLessThan(until);
            Thread.onSpinWait();
        }
    }

    private List<Entry> end(TestEnd testEnd) throws Exception {
        recorder.endTest(test, testEnd);
        return result().entries();
    }

    private TestResult result() throws Exception {
        return RunReader.read(Path.of(System.getProperty("verbale.root"))).tests().stream()
                .filter(one -> one.key().equals(key))
                .findFirst()
                .orElseThrow();
    }

    private static String content(List<Entry> entries, int attachment) throws Exception {
        return Files.readString(attachments(entries).get(attachment).file(), StandardCharsets.UTF_8);
    }

    private static List<Entry.AttachmentEntry> attachments(List<Entry> entries) {
        return entries.stream()
                .filter(Entry.AttachmentEntry.class::isInstance)
                .map(Entry.AttachmentEntry.class::cast)
                .toList();
    }

    private static List<String> steps(List<Entry> entries) {
        List<String> steps = new ArrayList<>();
        for (Entry entry : entries)
            if (entry instanceof Entry.StepEntry step)
                steps.add(step.name()
                        + (step.outcome().word().equals("passed")
                                ? ""
                                : ": " + step.outcome().word()));
        return steps;
    }
}
