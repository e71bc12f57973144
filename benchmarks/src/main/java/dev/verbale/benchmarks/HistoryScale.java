package dev.verbale.benchmarks;

import dev.verbale.history.History;
import dev.verbale.history.HistoryFolder;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.StepTime;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Stream;

/**
 * Many digests of many tests: bytes a test, writing, reading all of them, and three questions. {@code bin/bench HistoryScale [RUNS] [TESTS]};
 * without arguments 500 runs of 5,000 tests with four steps each.
 */
public final class HistoryScale {

    private HistoryScale() {}

    /** {@code [RUNS] [TESTS]}. */
    public static void main(String[] arguments) throws IOException {
        int runs = arguments.length > 0 ? Integer.parseInt(arguments[0]) : 500;
        int tests = arguments.length > 1 ? Integer.parseInt(arguments[1]) : 5_000;
        Path path = Files.createTempDirectory("history");
        var folder = new HistoryFolder(path);
        try {
            long wrote = System.nanoTime();
            for (int run = 0; run < runs; run++) folder.add(digest(run, tests));
            double writing = seconds(wrote);
            long bytes = 0;
            for (Path file : folder.files()) bytes += Files.size(file);
            System.out.printf(
                    "%d runs of %d tests: %.1f bytes a test, written in %.1f s%n",
                    runs, tests, (double) bytes / runs / tests, writing);
            for (int i = 0; i < 3; i++) ask(folder, tests);
        } finally {
            try (Stream<Path> all = Files.walk(path)) {
                for (Path file : all.sorted(Comparator.reverseOrder()).toList()) Files.delete(file);
            }
        }
    }

    private static void ask(HistoryFolder folder, int tests) throws IOException {
        long cpu = cpuNanos();
        long read = System.nanoTime();
        History history = folder.read(problem -> System.out.println(problem.sentence()));
        double reading = seconds(read);
        System.gc();
        long heap = Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
        long one = System.nanoTime();
        int appearances =
                history.test(key(tests / 2)).orElseThrow().appearances().size();
        double oneTest = seconds(one) * 1_000;
        long flaky = System.nanoTime();
        int flickering = history.flaky(50).size();
        double flakiest = seconds(flaky) * 1_000;
        long slow = System.nanoTime();
        int slower = history.slower(50).size();
        double slowest = seconds(slow) * 1_000;
        long why = System.nanoTime();
        String first = history.reason("reason3").orElseThrow().first().name();
        double reason = seconds(why) * 1_000;
        System.out.printf(
                "read in %.1f s, heap %d MB; one test (%d runs) %.2f ms, %d flakiest %.0f ms, %d slower %.0f ms, a reason (first in %s) %.0f ms; %.1f s of CPU in all%n",
                reading,
                heap >> 20,
                appearances,
                oneTest,
                flickering,
                flakiest,
                slower,
                slowest,
                first,
                reason,
                (cpuNanos() - cpu) / 1e9);
    }

    private static long cpuNanos() {
        return ((com.sun.management.OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean())
                .getProcessCpuTime();
    }

    static double seconds(long from) {
        return (System.nanoTime() - from) / 1e9;
    }

    static String key(int test) {
        return "dev.orto.area" + test % 40 + ".Garden" + test % 400 + "Test.waters_bed_" + test + "()";
    }

    static RunDigest digest(int run, int count) {
        Random random = new Random(run);
        List<ReasonDigest> reasons = new ArrayList<>();
        for (int i = 0; i < 20; i++) reasons.add(new ReasonDigest("reason" + i, "The bed " + i + " is dry"));
        List<TestDigest> tests = new ArrayList<>(count);
        for (int test = 0; test < count; test++) {
            boolean flickers = test % 50 == 0 && random.nextInt(8) == 0;
            boolean fails = random.nextInt(200) == 0;
            List<StepTime> steps = new ArrayList<>();
            for (int step = 0; step < 4; step++)
                steps.add(new StepTime("Step " + (test + step) % 300, random.nextInt(900)));
            tests.add(new TestDigest(
                    key(test),
                    "Garden › waters bed " + test,
                    fails ? Outcome.FAILED : Outcome.PASSED,
                    100 + random.nextInt(2_000),
                    flickers ? 2 : 1,
                    flickers && !fails,
                    fails ? "reason" + random.nextInt(20) : null,
                    steps,
                    new TestDigest.Origin(
                            key(test).replaceFirst("\\.[^.]*$", ""),
                            "waters_bed_" + test,
                            test % 3 == 0 ? List.of("browser", "area" + test % 40) : List.of(),
                            test % 7 == 0 ? "Ada" : null)));
        }
        Instant started = Instant.parse("2025-01-01T22:15:00Z").plus(Duration.ofDays(run));
        return new RunDigest(
                started.toString().substring(0, 10) + "_221500_aaaa",
                started,
                Duration.ofMinutes(40),
                Map.of("branch", "main"),
                true,
                true,
                tests,
                reasons);
    }
}
