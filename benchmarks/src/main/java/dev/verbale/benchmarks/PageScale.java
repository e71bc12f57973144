package dev.verbale.benchmarks;

import dev.verbale.folder.RunFolder;
import dev.verbale.report.Page;
import dev.verbale.report.PageOptions;
import dev.verbale.results.join.RunJoiner;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.support.ui.WebDriverWait;

/**
 * Pages of 1,000, 10,000 and 100,000 tests of 10 steps: written in a heap of 512 MB, and opened from disk in Chromium. {@code bin/bench
 * PageScale [TESTS ...]}.
 */
public final class PageScale {

    private static final int ROUNDS = 7;
    private static final int SHARDS = 4;

    private PageScale() {}

    /** {@code [TESTS ...]}, or {@code write FOLDER} or {@code single FOLDER} in the small heap. */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        if (arguments.length == 2 && arguments[0].equals("write")) {
            write(Path.of(arguments[1]));
            return;
        }
        if (arguments.length == 2 && arguments[0].equals("single")) {
            writeSingleFile(Path.of(arguments[1]));
            return;
        }
        List<String> sizes = arguments.length > 0 ? List.of(arguments) : List.of("1000", "10000", "100000");
        for (String size : sizes) {
            Path work = Files.createTempDirectory("page-scale");
            try {
                record(work, Integer.parseInt(size));
                System.out.println(size + " tests");
                for (int i = 0; i < 3; i++)
                    ReadScale.again(
                            "-Xmx512m",
                            PageScale.class,
                            "write",
                            work.resolve("run").toString());
                open(work.resolve("run/page/index.html"), Integer.parseInt(size));
                ReadScale.again(
                        "-Xmx512m",
                        PageScale.class,
                        "single",
                        work.resolve("run").toString());
                open(work.resolve("run/page.html"), Integer.parseInt(size));
            } finally {
                ReadScale.delete(work);
            }
        }
    }

    /** One in twenty fails, for one of 700 reasons. */
    static void record(Path work, int tests) throws IOException {
        List<Path> shards = new ArrayList<>();
        for (int shard = 0; shard < SHARDS; shard++) {
            shards.add(work.resolve("shard-" + shard));
            ReadScale.write(shards.get(shard), shard, tests / SHARDS, 10, 20);
        }
        RunJoiner.join(shards, work.resolve("run"));
    }

    private static void write(Path folder) throws IOException {
        var run = new RunFolder(folder);
        long from = System.nanoTime();
        Page.write(run, run.page(), PageOptions.PLAIN, any -> true);
        double all = (System.nanoTime() - from) / 1e9;
        try (Stream<Path> files = Files.walk(folder.resolve("page"))) {
            long bytes = files.filter(Files::isRegularFile)
                    .mapToLong(file -> file.toFile().length())
                    .sum();
            System.out.printf("  read, and its page written after %.1f s, %.1f MB%n", all, bytes / 1e6);
        }
    }

    private static void writeSingleFile(Path folder) throws IOException {
        long from = System.nanoTime();
        Path file = folder.resolve("page.html");
        Page.writeSingleFile(new RunFolder(folder), file, PageOptions.PLAIN, 0);
        double all = (System.nanoTime() - from) / 1e9;
        System.out.printf("  as one file after %.1f s, %.1f MB%n", all, Files.size(file) / 1e6);
    }

    static void open(Path index, int tests) {
        var options = new ChromeOptions();
        options.setBinary("/usr/bin/chromium");
        options.addArguments("--headless=new", "--no-sandbox", "--disable-gpu", "--window-size=1280,800");
        var chromium = new ChromeDriver(options);
        try {
            String address = index.toUri().toString();
            var first = new double[ROUNDS];
            var list = new double[ROUNDS];
            var search = new double[ROUNDS];
            var test = new double[ROUNDS];
            for (int i = 0; i < ROUNDS; i++) {
                chromium.get("about:blank");
                chromium.get(address);
                waitFor(chromium, "return performance.getEntriesByName('first-contentful-paint').length > 0");
                first[i] =
                        number(chromium, "return performance.getEntriesByName('first-contentful-paint')[0].startTime");
                chromium.get("about:blank");
                chromium.get(address + "#/tests?group=nothing");
                waitFor(chromium, "return document.querySelector('.row-line') !== null");
                list[i] = number(chromium, "return performance.now()");
                Object waited =
                        chromium.executeAsyncScript("setTimeout(arguments[arguments.length - 1], " + tests / 25 + ")");
                if (waited != null) throw new IllegalStateException(String.valueOf(waited));
                search[i] = timed(
                        chromium, "location.hash = '#/tests?group=nothing&find=" + (tests / SHARDS - 1 - i) + "'");
                test[i] = timed(chromium, "document.querySelector('.row-line').click()");
            }
            System.out.printf(
                    "  first view %.0f ms, list %.0f ms, a search %.0f ms, a test %.0f ms (medians of %d)%n",
                    Figures.median(first), Figures.median(list), Figures.median(search), Figures.median(test), ROUNDS);
        } finally {
            chromium.quit();
        }
    }

    /** Until the frame after the next one is drawn: what was asked for is on the screen then. */
    private static double timed(ChromeDriver chromium, String act) {
        return ((Number)
                        chromium.executeAsyncScript(
                                "const done = arguments[arguments.length - 1]; const from = performance.now();" + act
                                        + "; setTimeout(() => requestAnimationFrame(() => setTimeout(() => done(performance.now() - from))))"))
                .doubleValue();
    }

    private static void waitFor(ChromeDriver chromium, String script) {
        new WebDriverWait(chromium, Duration.ofSeconds(60), Duration.ofMillis(5))
                .until(driver -> Boolean.TRUE.equals(((ChromeDriver) driver).executeScript(script)));
    }

    private static double number(ChromeDriver chromium, String script) {
        return ((Number) chromium.executeScript(script)).doubleValue();
    }
}
