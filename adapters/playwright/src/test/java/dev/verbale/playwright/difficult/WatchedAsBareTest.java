package dev.verbale.playwright.difficult;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Dialog;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.ElementHandle;
import com.microsoft.playwright.FrameLocator;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.PlaywrightException;
import com.microsoft.playwright.Response;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.LoadState;
import dev.verbale.Scope;
import dev.verbale.Verbale;
import dev.verbale.browser.difficult.Greeter;
import dev.verbale.browser.difficult.Site;
import dev.verbale.browser.difficult.Transcript;
import dev.verbale.hostile.ByDay;
import dev.verbale.playwright.VerbalePlaywright;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A watched page gives a test what the bare one gives, whatever the site does, also where the test fails in the middle. */
class WatchedAsBareTest {

    private static final int MAX_WAYS = 4;

    private static Playwright playwright;
    private static Browser browser;
    private static Site site;

    private final AdapterRecorder recorder = AdapterRecorder.current();

    /** What is done to a page. */
    private interface Deed {
        void to(Page page, Transcript transcript) throws Exception;
    }

    private record Difficulty(String name, Deed deed) {
        @Override
        public String toString() {
            return name;
        }
    }

    @BeforeAll
    static void open() throws IOException {
        site = new Site();
        playwright = Playwright.create(
                new Playwright.CreateOptions().setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
        browser = launched();
    }

    private static Browser launched() {
        return playwright
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(List.of(
                                "--no-sandbox",
                                "--disable-gpu",
                                "--disable-features=WebUIOmniboxPopup,WebUIOmniboxAimPopup")));
    }

    @AfterAll
    static void close() {
        playwright.close();
        site.close();
    }

    static Stream<Difficulty> difficulties() {
        return ByDay.everyFourth(List.of(
                new Difficulty("windows", WatchedAsBareTest::windows),
                new Difficulty("a window that closes itself", WatchedAsBareTest::brief),
                new Difficulty("frames", WatchedAsBareTest::frames),
                new Difficulty("dialogs", WatchedAsBareTest::dialogs),
                new Difficulty("a dialog that nobody hears", WatchedAsBareTest::unheard),
                new Difficulty("a page that holds back", WatchedAsBareTest::holdsBack),
                new Difficulty("navigation", WatchedAsBareTest::navigation),
                refused("/round"),
                refused("/private"),
                refused("http://127.0.0.1:1/"),
                refused("no address"),
                new Difficulty("files", WatchedAsBareTest::files),
                new Difficulty("workers and sockets", WatchedAsBareTest::workers),
                new Difficulty("elements that go", WatchedAsBareTest::elements),
                new Difficulty("what cannot be clicked", WatchedAsBareTest::covered),
                new Difficulty("locators of locators", WatchedAsBareTest::locators),
                new Difficulty("scripts", WatchedAsBareTest::scripts),
                new Difficulty("mouse and keys", WatchedAsBareTest::input),
                new Difficulty("waiting", WatchedAsBareTest::waiting),
                new Difficulty("routes and events", WatchedAsBareTest::routes),
                new Difficulty("assertions", WatchedAsBareTest::assertions),
                new Difficulty("a page that crashes", WatchedAsBareTest::crash),
                new Difficulty("a page that was closed", WatchedAsBareTest::closed),
                new Difficulty("a context that was closed", WatchedAsBareTest::contextClosed),
                new Difficulty("the page itself", WatchedAsBareTest::itself)));
    }

    @ParameterizedTest
    @MethodSource("difficulties")
    void a_test_sees_what_it_sees_of_the_bare_page(Difficulty difficulty) throws Exception {
        try {
            compare(difficulty);
        } catch (AssertionError | Exception found) {
            if (browser.isConnected()) throw found;
            // The whole browser went down, as it may by itself. One that does so again has it from the difficulty.
            browser = launched();
            compare(difficulty);
        }
    }

    private void compare(Difficulty difficulty) throws Exception {
        List<List<String>> expected = new ArrayList<>();
        expected.add(bare(difficulty));
        List<String> seen = watched(difficulty);
        // A bare one may do now this and now that, as answers come in time or late.
        while (!expected.contains(seen) && expected.size() < MAX_WAYS) expected.add(bare(difficulty));

        if (!expected.contains(seen)) assertThat(seen).isEqualTo(expected.get(0));
    }

    private static List<String> bare(Difficulty difficulty) throws Exception {
        var transcript = new Transcript(() -> {});
        try (BrowserContext context = browser.newContext()) {
            Page page = context.newPage();
            page.setDefaultTimeout(3_000);
            difficulty.deed().to(page, transcript);
        }
        return transcript.lines();
    }

    private List<String> watched(Difficulty difficulty) throws Exception {
        var transcript = new Transcript(() -> assertThatThrownBy(() -> Verbale.step("Look", () -> {
                    throw new IllegalStateException("it rains");
                }))
                .isInstanceOf(IllegalStateException.class));
        Scope test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("difficult " + difficulty.name(), difficulty.name())
                        .build());
        try (BrowserContext context = browser.newContext()) {
            Page page = VerbalePlaywright.watch(context.newPage());
            page.setDefaultTimeout(3_000);
            difficulty.deed().to(page, transcript);
        } finally {
            recorder.endTest(test, TestEnd.threw(new AssertionError("as every test may end")));
        }
        return transcript.lines();
    }

    private static void windows(Page page, Transcript seen) {
        page.navigate(site.at("/windows"));
        for (String opener : List.of("#tab", "#popup", "#link", "#send", "#empty", "#severed")) {
            Page other = page.waitForPopup(() -> page.locator(opener).click());
            seen.fails();
            seen.does("title", () -> {
                other.waitForLoadState();
                return other.title();
            });
            seen.does(
                    "opener",
                    () -> other.opener() == null ? "none" : other.opener().title());
            seen.does("pages", () -> page.context().pages().size());
            seen.does("close", () -> done(other::close));
        }
        seen.does("title", page::title);
        seen.does("five", () -> {
            page.click("#many");
            page.context().waitForCondition(() -> page.context().pages().size() == 6);
            return page.context().pages().size();
        });
        seen.fails();
    }

    private static void brief(Page page, Transcript seen) {
        page.navigate(site.at("/windows"));
        seen.does("brief", () -> {
            Page other = page.waitForPopup(() -> page.click("#brief"));
            page.context().waitForCondition(other::isClosed); // it may be by now, and is no event then
            return other.isClosed();
        });
        seen.fails();
        seen.does("title", page::title);
    }

    private static void frames(Page page, Transcript seen) {
        page.navigate(site.at("/frames"));
        FrameLocator inner = page.frameLocator("#inner");
        seen.does("outer", () -> inner.locator("#o").textContent());
        seen.does("inner", () -> inner.frameLocator("#innermost").locator("#i").innerText());
        seen.does("none", () -> inner.locator("#none").count());
        seen.fails();
        seen.does("frames", () -> page.frames().size());
        seen.does("by name", () -> page.frame("no such"));
        seen.does("owner", () -> inner.owner().getAttribute("id"));
        seen.does(
                "drop",
                () -> done(
                        () -> inner.frameLocator("#innermost").locator("#drop").click()));
        seen.does("gone", () -> inner.locator("#o").count());
        page.navigate(site.at("/cross"));
        seen.does("far", () -> page.frameLocator("#far").locator("#i").innerText());
        seen.fails();
        seen.does(
                "content frame",
                () -> page.locator("#far").contentFrame().locator("#i").innerText());
    }

    private static void dialogs(Page page, Transcript seen) {
        page.navigate(site.at("/dialogs"));
        List<String> events = new ArrayList<>();
        page.onDialog(dialog -> {
            events.add(dialog.type() + " " + dialog.message());
            if (dialog.type().equals("prompt")) dialog.accept("three");
            else dialog.dismiss();
        });
        for (String one : List.of("#alert", "#confirm", "#prompt", "#twice")) {
            seen.does(one, () -> done(() -> page.click(one)));
            seen.does("title", page::title);
        }
        seen.fails();
        seen.does("events", () -> events);
    }

    private static void unheard(Page page, Transcript seen) {
        page.navigate(site.at("/dialogs"));
        seen.does("confirm", () -> done(() -> page.click("#confirm")));
        seen.does("title", page::title);
        page.onceDialog(Dialog::accept);
        seen.does("confirm", () -> done(() -> page.click("#confirm")));
        seen.does("title", page::title);
        seen.does("at once", () -> page.navigate(site.at("/asks-at-once")).status());
        seen.fails();
        seen.does("title", page::title);
    }

    private static void holdsBack(Page page, Transcript seen) {
        page.navigate(site.at("/holds-back"));
        page.fill("#field", "x");
        List<String> events = new ArrayList<>();
        page.onDialog(dialog -> {
            events.add(dialog.type());
            try {
                dialog.accept();
            } catch (PlaywrightException handled) {
                // as of a page that goes meanwhile
            }
        });
        seen.does("leave", () -> page.navigate(site.at("/")).status());
        seen.does("events", () -> events);
        page.navigate(site.at("/holds-back"));
        page.fill("#field", "x");
        seen.does("close", () -> done(() -> page.close(new Page.CloseOptions().setRunBeforeUnload(true))));
        seen.fails();
    }

    private static void navigation(Page page, Transcript seen) {
        seen.does("open", () -> page.navigate(site.at("/")).status());
        seen.does("moved", () -> page.navigate(site.at("/moved")).url());
        page.navigate(site.at("/other"));
        page.navigate(site.at("/"));
        seen.does("back", () -> page.goBack().status());
        seen.does("reload", () -> page.reload().status());
        seen.does("forward", () -> page.goForward().status());
        seen.does("late", () -> page.navigate(site.at("/slow"), new Page.NavigateOptions().setTimeout(200)));
        seen.fails();
        seen.does("half", () -> page.navigate(site.at("/half"), new Page.NavigateOptions().setTimeout(200)));
        seen.does("there", () -> page.textContent("#there"));
        seen.does("data", () -> page.navigate("data:text/html,<title>Data</title>") == null);
        seen.does("title", page::title);
    }

    private static Difficulty refused(String path) {
        return new Difficulty("an address that nobody opens: " + path, (page, seen) -> {
            seen.does("open", () -> page.navigate(path.startsWith("/") ? site.at(path) : path));
            seen.fails();
        });
    }

    private static void files(Page page, Transcript seen) throws Exception {
        page.navigate(site.at("/files"));
        Path file = Files.writeString(Files.createTempFile("seeds", ".csv"), "kale,3\n");
        seen.does("download", () -> {
            Download download = page.waitForDownload(() -> page.click("#load"));
            return download.suggestedFilename() + Files.size(download.path());
        });
        seen.fails();
        seen.does("no file", () -> done(() -> page.setInputFiles("#file", Path.of("/no/such/file"))));
        seen.does("choose", () -> done(() -> page.locator("#file").setInputFiles(file)));
        seen.does("send", () -> done(() -> page.click("#send")));
        seen.does("title", page::title);
        Files.delete(file);
    }

    private static void workers(Page page, Transcript seen) throws Exception {
        seen.does("worker", () -> {
            page.navigate(site.at("/worker"));
            page.waitForFunction("document.title === 'sown by the worker'");
            return page.title();
        });
        seen.fails();
        page.navigate(site.at("/"));
        try (var greeter = new Greeter()) {
            seen.does(
                    "socket",
                    () -> page.evaluate("new Promise(r => new WebSocket('ws://127.0.0.1:" + greeter.port()
                            + "/').onmessage = e => r(e.data))"));
        }
    }

    private static void elements(Page page, Transcript seen) {
        page.navigate(site.at("/restless"));
        ElementHandle old = page.querySelector("#old");
        seen.does("renew", () -> done(() -> page.click("#renew")));
        seen.does("old", old::textContent);
        seen.does("new", () -> page.locator("#old").textContent());
        seen.does("remove", () -> done(() -> page.click("#remove")));
        seen.does("gone", () -> done(() -> page.locator("#remove").click(new Locator.ClickOptions().setTimeout(100))));
        seen.fails();
        seen.does("reload", () -> done(() -> page.click("#reload")));
        seen.does("text", () -> page.locator("#old").textContent());
        seen.does("shadow", () -> {
            page.navigate(site.at("/shadow"));
            page.locator("#in").click();
            return page.title();
        });
    }

    private static void covered(Page page, Transcript seen) {
        page.navigate(site.at("/covered"));
        var briefly = new Locator.ClickOptions().setTimeout(150);
        for (String one : List.of("#under", "#hidden", "#off", "#none"))
            seen.does(one, () -> done(() -> page.locator(one).click(briefly)).length());
        seen.fails();
        seen.does("strict", () -> page.locator("button").textContent());
        seen.does("odd", () -> page.locator("[").count());
        seen.does("enabled", () -> page.isEnabled("#off"));
        seen.does("choose", () -> page.locator("#list").selectOption("Friday"));
        seen.does(
                "odd",
                () -> page.locator("#list").selectOption("Sunday", new Locator.SelectOptionOptions().setTimeout(100)));
    }

    private static void locators(Page page, Transcript seen) {
        page.navigate(site.at("/windows"));
        Locator buttons = page.locator("button");
        Locator tab = page.locator("#tab");
        seen.does("all", () -> buttons.all().size());
        seen.does("texts", buttons::allTextContents);
        seen.does(
                "has",
                () -> page.locator("form")
                        .filter(new Locator.FilterOptions().setHas(page.locator("#send")))
                        .count());
        seen.does(
                "options",
                () -> page.locator("form", new Page.LocatorOptions().setHas(page.locator("#send")))
                        .count());
        seen.does("and", () -> buttons.and(tab).count());
        seen.does("or", () -> tab.or(page.locator("a")).count());
        seen.does(
                "inside",
                () -> page.locator("form").locator(page.locator("#send")).count());
        seen.does("role", () -> page.getByRole(AriaRole.LINK).count());
        seen.does(
                "nth",
                () -> buttons.nth(1).getAttribute("id")
                        + buttons.first().getAttribute("id")
                        + buttons.last().getAttribute("id"));
        seen.does("evaluate", () -> buttons.evaluateAll("all => all.map(e => e.id)"));
        seen.does("handle", () -> tab.elementHandle().getAttribute("id"));
        seen.does("masked", () -> page.screenshot(new Page.ScreenshotOptions().setMask(List.of(tab))));
        seen.does(
                "masked", () -> tab.screenshot(new Locator.ScreenshotOptions().setMask(List.of(tab, buttons.first()))));
        seen.does("drag", () -> done(() -> tab.dragTo(page.locator("#popup"))));
        seen.does("page", () -> tab.page().title());
        seen.does("same", () -> tab.equals(tab));
        seen.does("text", tab::toString);
        seen.fails();
        seen.does("handler", () -> done(() -> page.addLocatorHandler(tab, found -> {})));
        seen.does("handler", () -> done(() -> page.removeLocatorHandler(tab)));
    }

    private static void scripts(Page page, Transcript seen) {
        page.navigate(site.at("/"));
        seen.does("null", () -> page.evaluate("null"));
        seen.does("map", () -> page.evaluate("({a: [1, 'b', {c: true}]})"));
        seen.does("argument", () -> page.evaluate("x => x.a + 1", Map.of("a", 1)));
        seen.does("element", () -> page.evaluate("e => e.id", page.querySelector("#name")));
        seen.does("broken", () -> page.evaluate("() => { throw new Error('no seeds') }"));
        seen.does("odd", () -> page.evaluate("("));
        seen.fails();
        seen.does(
                "handle",
                () -> page.evaluateHandle("document.body")
                                .asElement()
                                .innerHTML()
                                .length()
                        > 10);
        seen.does("exposed", () -> {
            page.exposeFunction("sow", given -> "sown " + given[0]);
            return page.evaluate("sow('kale')");
        });
        seen.does("content", () -> {
            page.setContent("<p>set</p>");
            return page.content();
        });
        seen.does("none", () -> page.evaluate(null));
    }

    private static void input(Page page, Transcript seen) {
        page.navigate(site.at("/actions"));
        seen.does("move", () -> done(() -> page.locator("#from").hover()));
        seen.does("twice", () -> done(() -> page.locator("#from").dblclick()));
        seen.does("drag", () -> done(() -> page.dragAndDrop("#from", "#to")));
        seen.does("type", () -> done(() -> page.locator("#field").pressSequentially("ab")));
        seen.does("press", () -> done(() -> page.keyboard().press("Shift+C")));
        seen.fails();
        seen.does("mouse", () -> done(() -> page.mouse().click(10, 10)));
        seen.does("value", () -> page.inputValue("#field"));
        seen.does("clear", () -> done(() -> page.locator("#field").clear()));
        seen.does("check", () -> done(() -> page.locator("#field").check()));
    }

    private static void waiting(Page page, Transcript seen) {
        page.navigate(site.at("/"));
        seen.does("late", () -> {
            page.click("#late");
            return page.waitForSelector("#ripe").textContent();
        });
        seen.does("never", () -> page.waitForSelector("#never", new Page.WaitForSelectorOptions().setTimeout(100)));
        seen.fails();
        seen.does("function", () -> page.waitForFunction("() => 7").jsonValue());
        seen.does("url", () -> done(() -> page.waitForURL(Pattern.compile(".*"))));
        seen.does("state", () -> done(() -> page.waitForLoadState(LoadState.NETWORKIDLE)));
        seen.does("response", () -> {
            Response response = page.waitForResponse("**/other", () -> page.evaluate("fetch('/other')"));
            return response.status() + response.text().length();
        });
        seen.does(
                "no response",
                () -> page.waitForResponse("**/none", new Page.WaitForResponseOptions().setTimeout(100), () -> {}));
        seen.does(
                "condition",
                () -> done(
                        () -> page.waitForCondition(() -> false, new Page.WaitForConditionOptions().setTimeout(100))));
        seen.does("wait", () -> done(() -> page.locator("#ripe").waitFor()));
    }

    private static void routes(Page page, Transcript seen) {
        List<String> events = new ArrayList<>();
        page.onConsoleMessage(message -> events.add(message.text()));
        page.onPageError(events::add);
        page.route("**/other", route -> route.abort());
        seen.does("open", () -> page.navigate(site.at("/")).status());
        seen.does("aborted", () -> page.evaluate("fetch('/other').then(r => r.status)"));
        seen.does("unroute", () -> done(() -> page.unroute("**/other")));
        seen.does("served", () -> page.evaluate("fetch('/other').then(r => r.status)"));
        seen.does("log", () -> page.evaluate("console.log('it grows')"));
        seen.does("error", () -> page.evaluate("setTimeout(() => { throw new Error('weeds') })"));
        seen.does("pause", () -> page.evaluate("new Promise(r => setTimeout(r, 50))"));
        seen.fails();
        seen.does(
                "heard",
                () -> events.stream()
                        .map(one -> one.lines().findFirst().orElse(""))
                        .toList());
        seen.does("request", () -> page.request().get(site.at("/")).status());
    }

    private static void assertions(Page page, Transcript seen) {
        page.navigate(site.at("/"));
        seen.does("holds", () -> done(() -> VerbalePlaywright.assertThat(page).hasTitle("Garden")));
        seen.does(
                "holds",
                () -> done(
                        () -> VerbalePlaywright.assertThat(page.locator("h1")).hasText("Garden")));
        seen.does(
                "not",
                () -> done(() -> VerbalePlaywright.assertThat(page.locator("h1"))
                        .not()
                        .hasText(
                                "Garden",
                                new com.microsoft.playwright.assertions.LocatorAssertions.HasTextOptions()
                                        .setTimeout(100))));
        seen.fails();
    }

    private static void crash(Page page, Transcript seen) {
        page.navigate(site.at("/"));
        seen.does("crash", () -> page.navigate("chrome://crash", new Page.NavigateOptions().setTimeout(1_000)));
        seen.fails();
        seen.does("closed", page::isClosed);
        seen.does("close", () -> done(page::close));
    }

    private static void closed(Page page, Transcript seen) {
        page.navigate(site.at("/"));
        Locator name = page.locator("#name");
        seen.does("close", () -> done(page::close));
        seen.fails();
        seen.does("closed", page::isClosed);
        seen.does("title", page::title);
        seen.does("click", () -> done(name::click));
        seen.does("again", () -> done(page::close));
    }

    private static void contextClosed(Page page, Transcript seen) {
        page.navigate(site.at("/"));
        seen.does("close", () -> done(() -> page.context().close()));
        seen.fails();
        seen.does("closed", page::isClosed);
        seen.does("title", page::title);
    }

    private static void itself(Page page, Transcript seen) {
        page.navigate(site.at("/"));
        seen.does("same", () -> page.equals(page) && page.hashCode() == page.hashCode());
        seen.does("among", () -> List.of(page).contains(page));
        seen.does("size", () -> {
            page.setViewportSize(800, 600);
            return page.viewportSize().width;
        });
        seen.does("url", page::url);
        seen.does("source", () -> page.content().length());
        seen.does("frame", () -> page.mainFrame().url());
        seen.does("pdf", page::pdf);
        seen.does("null", () -> page.navigate(null));
        seen.does("null", () -> page.locator((String) null).count());
    }

    private static String done(Runnable command) {
        command.run();
        return "done";
    }
}
