package dev.verbale.benchmarks;

import dev.verbale.Scope;
import dev.verbale.selenium.VerbaleSelenium;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.DoubleAdder;
import java.util.function.ToDoubleBiFunction;
import java.util.stream.Stream;
import org.openqa.selenium.By;
import org.openqa.selenium.WebDriver;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeOptions;

/**
 * What watching a browser costs: JVMs with a bare driver, with a watched one, and with a watched one with video take
 * turns, on a still page or on one that moves all the time, with one browser or with four at once. Arguments: {@code still}
 * or {@code moving}, the number of browsers, the number of calls.
 */
public final class BrowserOverhead {

    private static final Map<String, List<String>> WAYS = new LinkedHashMap<>();

    static {
        WAYS.put("bare", List.of("-Dverbale.enabled=false"));
        WAYS.put("watched", List.of("-Dverbale.video=none"));
        WAYS.put("video", List.of("-Dverbale.video=all"));
    }

    private BrowserOverhead() {}

    public static void main(String[] arguments) throws Exception {
        String page = arguments.length > 0 ? arguments[0] : "still";
        int browsers = arguments.length > 1 ? Integer.parseInt(arguments[1]) : 1;
        int calls = arguments.length > 2 ? Integer.parseInt(arguments[2]) : 150;
        if (arguments.length > 3) {
            inside(page.equals("moving"), browsers, calls);
            return;
        }
        Map<String, List<double[]>> results = new LinkedHashMap<>();
        int rounds = browsers == 1 ? 7 : 3;
        for (int round = 0; round < rounds; round++)
            for (String way : WAYS.keySet())
                results.computeIfAbsent(way, w -> new ArrayList<>()).add(run(way, page, browsers, calls));
        System.out.printf(Locale.ROOT, "%s page, %d browsers, %d finds and clicks in each%n", page, browsers, calls);
        results.forEach((way, list) -> System.out.printf(
                Locale.ROOT,
                "%-8s p50 %6.2f ms, p95 %6.2f ms for each find and click; whole %6.2f s; processors busy %.2f%n",
                way,
                Figures.median(list, one -> one[0]),
                Figures.median(list, one -> one[1]),
                Figures.median(list, one -> one[2]),
                Figures.median(list, one -> one[3])));
        double[] slower = more(results, rounds, (video, without) -> 100 * (video[0] / without[0] - 1));
        double[] busier = more(results, rounds, (video, without) -> 100 * (video[3] - without[3]));
        System.out.printf(
                Locale.ROOT,
                "video: %s %% more for a find and click, %s %% of a processor more%n",
                Figures.withSpread(slower),
                Figures.withSpread(busier));
        if (browsers != 1) return;
        if (page.equals("still")) Figures.put("video of a still page, of the clicks", Figures.median(slower), 15, "%");
        else Figures.put("video of a moving page, of a processor", Figures.median(busier), 33.3, "%");
    }

    /** Of each round, what a video takes more than watching alone. */
    private static double[] more(
            Map<String, List<double[]>> results, int rounds, ToDoubleBiFunction<double[], double[]> compared) {
        var all = new double[rounds];
        for (int i = 0; i < rounds; i++)
            all[i] = compared.applyAsDouble(
                    results.getOrDefault("video", List.of()).get(i),
                    results.getOrDefault("watched", List.of()).get(i));
        return all;
    }

    private static double[] run(String way, String page, int browsers, int calls) throws Exception {
        List<String> command = new ArrayList<>();
        command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.addAll(WAYS.getOrDefault(way, List.of()));
        command.addAll(List.of(
                "-Dverbale.summary-line=false",
                "-Dverbale.root=" + Sinks.folder(),
                "-cp",
                System.getProperty("java.class.path"),
                BrowserOverhead.class.getName(),
                page,
                String.valueOf(browsers),
                String.valueOf(calls),
                "inside"));
        Process jvm = new ProcessBuilder(command)
                .redirectError(ProcessBuilder.Redirect.DISCARD)
                .start();
        String output = new String(jvm.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        jvm.waitFor();
        return Arrays.stream(output.strip().split(" "))
                .mapToDouble(Double::parseDouble)
                .toArray();
    }

    /** Prints the median and the 95th percentile of a call in milliseconds, the seconds of all, and how many processors were busy. */
    private static void inside(boolean moving, int browsers, int calls) throws Exception {
        ExecutorService pool = Executors.newFixedThreadPool(browsers);
        List<Callable<double[]>> work = new ArrayList<>();
        for (int i = 0; i < browsers; i++) {
            String name = "browser " + i;
            work.add(() -> oneBrowser(name, moving, calls));
        }
        long from = System.nanoTime();
        List<Double> all = new ArrayList<>();
        for (Future<double[]> done : pool.invokeAll(work)) for (double one : done.get()) all.add(one);
        double whole = (System.nanoTime() - from) / 1e9;
        pool.shutdown();
        all.sort(Double::compare);
        System.out.printf(
                Locale.ROOT,
                "%f %f %f %f%n",
                all.get(all.size() / 2),
                all.get(all.size() * 95 / 100),
                whole,
                busy.doubleValue() / browsers);
    }

    private static double[] oneBrowser(String name, boolean moving, int calls) {
        AdapterRecorder recorder = AdapterRecorder.current();
        Scope test =
                recorder.startTest(recorder.run(), TestDescriptor.of(name, name).build());
        WebDriver driver = VerbaleSelenium.watch(browser());
        driver.get(page(moving));
        double before = cpuSeconds();
        long begun = System.nanoTime();
        var millis = new double[calls];
        for (int i = 0; i < calls; i++) {
            long from = System.nanoTime();
            driver.findElement(By.id("swap")).click();
            millis[i] = (System.nanoTime() - from) / 1e6;
        }
        busy.add((cpuSeconds() - before) * 1e9 / (System.nanoTime() - begun));
        driver.quit();
        recorder.endTest(test, TestEnd.passed());
        return Arrays.copyOfRange(millis, calls / 10, calls); // the first ones warm up
    }

    private static final DoubleAdder busy = new DoubleAdder();

    /** Of this JVM, its browsers and drivers. */
    private static double cpuSeconds() {
        ProcessHandle self = ProcessHandle.current();
        return Stream.concat(Stream.of(self), self.descendants())
                .mapToDouble(process -> process.info()
                        .totalCpuDuration()
                        .map(time -> time.toNanos() / 1e9)
                        .orElse(0.0))
                .sum();
    }

    private static String page(boolean moving) {
        String style = moving ? "<style>p{animation:a 2s infinite}@keyframes a{to{margin-left:600px}}</style>" : "";
        String html = style + "<h1>Rota</h1><p>Monday</p><button id=swap type=button>Swap</button>";
        return "data:text/html;base64," + Base64.getEncoder().encodeToString(html.getBytes(StandardCharsets.UTF_8));
    }

    private static ChromeDriver browser() {
        System.setProperty("webdriver.chrome.driver", "/usr/bin/chromedriver");
        var options = new ChromeOptions();
        options.setBinary("/usr/bin/chromium");
        options.addArguments("--headless=new", "--no-sandbox", "--disable-gpu", "--disable-background-networking");
        options.addArguments("--window-size=1280,943");
        return new ChromeDriver(options);
    }
}
