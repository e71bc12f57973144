package dev.verbale.acceptance;

import dev.verbale.report.PageOptions;
import dev.verbale.results.RunReader;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.testing.Jvm;
import dev.verbale.viewer.Viewer;
import dev.verbale.viewer.ViewerOptions;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.openqa.selenium.By;
import org.openqa.selenium.Keys;
import org.openqa.selenium.OutputType;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Takes the images of the documentation from a recorded run of the demo. {@code bin/shots} starts it. */
public final class Shots {

    private static final String SWAP =
            "#/test/dev.orto.browser.RotaPageTest.swapping_two_days_swaps_their_neighbours()";

    private static final String SHED = "#/test/dev.orto.browser.ShedPageTest.elsa_takes_the_key()";
    private static final String PLAN = "#/test/dev.orto.browser.PlotsPageTest.the_plan_looks_as_it_did()";

    private static final String YEAR = "#/test/dev.orto.api.HarvestApiTest.a_year_can_be_looked_up(int)%232~2";
    private static final String TOTAL =
            "#/test/dev.orto.api.HarvestApiTest.the_total_of_a_crop_is_the_sum_of_its_weighings"
                    + "(java.lang.String,%20double,%20java.lang.String)%232~2";

    private static final String SCENARIO =
            "#/test/dev/orto/features/rota.feature/Two%20neighbours%20swap%20their%20days~2";

    private final ChromeDriver driver;
    private final Path target;
    private final List<String> only;

    private Shots(ChromeDriver driver, Path target, List<String> only) {
        this.driver = driver;
        this.target = target;
        this.only = only;
    }

    /** Arguments: the run's folder, the folder for the images, the jar of the command line; names, where not all are wanted. */
    public static void main(String[] arguments) throws Exception {
        Path run = Path.of(arguments[0]);
        Path target = Files.createDirectories(Path.of(arguments[1]));
        var driver = Browsers.start();
        try {
            new Shots(driver, target, List.of(arguments).subList(3, arguments.length)).all(run, Path.of(arguments[2]));
        } finally {
            driver.quit();
        }
    }

    private void all(Path run, Path jar) throws Exception {
        String page = run.resolve("page/index.html").toUri().toString();
        look("light", 1280, 800);
        shoot(page, ".strip", "summary");
        shoot(page + "#/tests", ".row-line", "tests");
        shoot(page + SWAP, ".thumbnail img", "test");
        shoot(page + SHED, ".video video", "test-video", () -> {
            driver.findElements(By.cssSelector(".entry .seek")).get(4).click();
            waitFor("return document.querySelector('.entry.now') && document.querySelector('video').readyState >= 2");
            driver.executeScript("document.querySelector('.entries').scrollIntoView()");
        });
        shoot(page + YEAR, ".exchange summary", "exchange", () -> {
            driver.findElements(By.cssSelector(".exchange summary")).get(0).click();
            await(".detail").click();
            driver.executeScript("document.querySelector('.entries').scrollIntoView()");
        });
        shoot(page + TOTAL, ".data-rows", "data-rows");
        shoot(page + SWAP + "?beside=" + SWAP.substring("#/test/".length()) + "~2", ".screens img", "beside", () -> {
            driver.executeScript("document.querySelector('.beside').scrollIntoView()");
        });
        shoot(page + SCENARIO, ".step-table", "scenario");
        shoot(page + "#/exchanges", ".endpoints", "exchanges");
        shoot(page + "#/workers", ".lanes", "workers");
        shoot(page + "#/earlier", ".matrix", "earlier");
        shoot(page + PLAN, ".thumbnail img", "difference", () -> {
            driver.findElements(By.cssSelector(".entries .thumbnail img"))
                    .get(2)
                    .click();
            await(".image-viewer img").click();
        });
        try (Viewer viewer = Viewer.start(new ViewerOptions(
                Path.of("").toAbsolutePath().relativize(run.toAbsolutePath()).getParent(),
                new InetSocketAddress(InetAddress.getLoopbackAddress(), 0),
                null,
                any -> PageOptions.PLAIN))) {
            shoot(
                    viewer.address().toString(),
                    "tbody tr",
                    "viewer",
                    () -> waitFor("return !document.body.innerText.includes('not read yet')"));
            driver.get("about:blank");
        }
        if (only.isEmpty() || only.contains("known")) known(run, jar);
        if (only.isEmpty() || only.contains("site")) site(run, jar);
        if (only.isEmpty() || only.contains("mail")) mail(run, jar);
        look("light", 400, 800);
        shoot(page + SWAP, ".thumbnail img", "test-narrow");
        look("light", 1280, 800);
        shoot(terminal(run, jar, "failures").toUri().toString(), "pre", "terminal");
        shoot(terminal(run, jar, "today", "--limit", "4").toUri().toString(), "pre", "today");
    }

    /** The reason of the swap on a hub, as who may label it sees it. */
    private void known(Path run, Path jar) throws Exception {
        try (HubProcess hub = new HubProcess(jar, Files.createTempDirectory("hub"))) {
            Map<String, String> all = hub.environment(hub.first);
            Jvm sent = Jvm.bareJava(all, run, "-jar", jar.toString(), "hub", "send", run.toString());
            if (sent.code() != 0) throw new IllegalStateException(sent.output());
            String label = hub.ask("POST", "api/v1/tokens?project=orto&role=label&label=Ada%20Rossi");
            String reason = FailureReason.of(RunReader.read(run)).get(0).id();
            hub.ask(
                    "PUT",
                    "api/v1/projects/orto/reasons/" + reason,
                    "label",
                    "product",
                    "owner",
                    "Ada Rossi",
                    "comment",
                    "both days are written to the same neighbour",
                    "known-until",
                    "2026-12-31");
            while (!hub.ask("GET", "projects/orto/reasons/" + reason).contains("so far, the first"))
                Thread.onSpinWait();
            driver.get(hub.address);
            await("[name=token]").sendKeys(label, Keys.ENTER);
            await("main table");
            shoot(hub.address + "projects/orto/reasons/" + reason, "form", "known");
            driver.get("about:blank");
        }
    }

    /** The index of a site with the last runs of the demo. */
    private void site(Path run, Path jar) throws Exception {
        Path site = Files.createTempDirectory("site");
        try (Stream<Path> runs = Files.list(run.getParent())) {
            for (Path one : (Iterable<Path>) runs.filter(Files::isDirectory).sorted()::iterator)
                verbale(run, jar, "publish", one.toString(), "--to", site.toString(), "--title", "Orto");
        }
        shoot(site.resolve("index.html").toUri().toString(), "table", "site");
    }

    /** A mail as a program for mails shows it: 600 pixels wide, and without a network. */
    private void mail(Path run, Path jar) throws Exception {
        Path mail = Files.createTempFile("mail", ".html");
        Files.writeString(mail, verbale(run, jar, "export", run.toString(), "--format", "mail-html"));
        look("light", 640, 800);
        shoot(mail.toUri().toString(), "body", "mail");
        look("light", 1280, 800);
    }

    private static String verbale(Path run, Path jar, String... arguments) throws Exception {
        List<String> words = new ArrayList<>(List.of("-jar", jar.toString()));
        words.addAll(List.of(arguments));
        Jvm done =
                Jvm.bareJava(Map.of("VERBALE_HISTORY", "target/history"), suiteOf(run), words.toArray(String[]::new));
        if (done.code() != 0) throw new IllegalStateException(done.output());
        return done.output();
    }

    /** The folder of the module that recorded it. */
    private static Path suiteOf(Path run) {
        return run.getParent().getParent().getParent();
    }

    private void look(String scheme, int width, int height) {
        driver.executeCdpCommand(
                "Emulation.setEmulatedMedia",
                Map.of("features", List.of(Map.of("name", "prefers-color-scheme", "value", scheme))));
        driver.executeCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", false));
    }

    private void shoot(String address, String awaited, String name) throws Exception {
        shoot(address, awaited, name, () -> {});
    }

    private void shoot(String address, String awaited, String name, Runnable before) throws Exception {
        if (!only.isEmpty() && !only.contains(name)) return;
        driver.get("about:blank");
        driver.get(address);
        await(awaited);
        before.run();
        image("body", name);
    }

    private WebElement await(String css) {
        return new WebDriverWait(driver, Duration.ofSeconds(10)).until(d -> d.findElement(By.cssSelector(css)));
    }

    private void waitFor(String script) {
        new WebDriverWait(driver, Duration.ofSeconds(10))
                .until(d -> driver.executeScript(script) instanceof Boolean there && there);
    }

    private void image(String awaited, String name) throws Exception {
        new WebDriverWait(driver, Duration.ofSeconds(30)).until(d -> d.findElement(By.cssSelector(awaited)));
        driver.executeAsyncScript(
                "const done = arguments[0]; document.fonts.ready.then(() => requestAnimationFrame(() =>"
                        + " Promise.all([...document.images].map(i => i.decode().catch(() => 0))).then(() => done())))");
        Files.write(target.resolve(name + ".png"), driver.getScreenshotAs(OutputType.BYTES));
        System.out.println(target.resolve(name + ".png"));
    }

    /** What a command prints on a terminal, as a page. */
    private static Path terminal(Path run, Path jar, String... arguments) throws Exception {
        List<String> words = new ArrayList<>(List.of("-Dpicocli.ansi=true", "-jar", jar.toString()));
        words.addAll(List.of(arguments));
        Jvm printed =
                Jvm.bareJava(Map.of("VERBALE_HISTORY", "target/history"), suiteOf(run), words.toArray(String[]::new));
        String text = printed.output().replace("&", "&amp;").replace("<", "&lt;");
        String html = text.replace("\u001B[31m\u001B[1m", "<span class='red bold'>")
                .replace("\u001B[35m\u001B[1m", "<span class='purple bold'>")
                .replace("\u001B[1m", "<span class='bold'>")
                .replace("\u001B[2m", "<span class='faint'>")
                .replace("\u001B[0m", "</span>")
                .replaceAll("\u001B]8;;\u001B\\\\", "</u>")
                .replaceAll("\u001B]8;;[^\u001B]*\u001B\\\\", "<u>"); // links, as a terminal draws them
        return Files.writeString(
                Files.createTempFile("terminal", ".html"),
                """
                <!doctype html><meta charset="utf-8"><style>
                body { margin: 0; background: #1d1f21; color: #d6d6d0; }
                pre { font: 14px/1.45 "DejaVu Sans Mono", monospace; padding: 20px; }
                .red { color: #ff7b6b; } .purple { color: #d39bf0; } .bold { font-weight: bold; } .faint { color: #8d8f8a; }
                </style><pre><span class="faint">$</span> verbale %s
                """.formatted(String.join(" ", arguments)) + html + "</pre>");
    }
}
