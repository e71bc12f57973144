package dev.verbale.benchmarks;

import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/**
 * What the listener adds to a whole suite: JVMs with it on their class path, without it, and with a listener that logs take turns;
 * the medians of what each adds are compared. Of the long suites the time inside the launcher counts, of a single test the life of the whole JVM. Arguments:
 * the suites, among {@code One}, {@code TenThousand} and {@code FortyThousand}; all where there are none.
 */
public final class SuiteOverhead {

    private static final int ROUNDS = 7;
    /** A start is short, and the machine's own noise is as long. */
    private static final int ROUNDS_OF_A_START = 21;

    /** Without the adapters of other frameworks, which FrameworkOverhead measures. */
    private static final String ALL = classPath("(?!.*verbale-(testng|cucumber)).*");

    /** What the README's first steps bring: the adapter for JUnit and what it needs. */
    private static final String FIRST_STEPS = classPath(
            ".*(target.classes|verbale-(format|secrets|recorder|junit)-|jackson-core-3|junit-|opentest4j|apiguardian|jspecify"
                    + "|slf4j-api|logback).*");

    private SuiteOverhead() {}

    public static void main(String[] arguments) throws Exception {
        List<String> suites = List.of(arguments);
        if (suites.isEmpty() || suites.contains("One")) {
            double[] more = compare("a JVM with one test", TrivialTests.One.class, 1_000, true, FIRST_STEPS);
            Figures.put("start of a JVM", more[0], 120, "ms");
            Figures.put("start of a JVM, to Logback", more[1], 0.7, "times");
            compare("the same, with all that the benchmarks need", TrivialTests.One.class, 1_000, true, ALL);
        }
        if (suites.isEmpty() || suites.contains("TenThousand")) {
            double[] more = compare("10,000 tests", TrivialTests.TenThousand.class, 10_000, false, FIRST_STEPS);
            Figures.put("a suite of 10,000 tests", more[0], 40, "µs a test");
            Figures.put("a suite of 10,000 tests, to Logback", more[1], 0.5, "times");
        }
        if (suites.isEmpty() || suites.contains("FortyThousand")) {
            double[] more = compare("40,000 tests", TrivialTests.FortyThousand.class, 40_000, false, FIRST_STEPS);
            Figures.put("a suite of 40,000 tests", more[0], 25, "µs a test");
            Figures.put("a suite of 40,000 tests, to Logback", more[1], 0.5, "times");
        }
    }

    /** @return how much more it takes, divided by {@code by}; and that by what Logback's listener takes more */
    private static double[] compare(String what, Class<?> suite, int by, boolean wholeJvm, String with)
            throws Exception {
        String without = without(with);
        int rounds = wholeJvm ? ROUNDS_OF_A_START : ROUNDS;
        var bare = new double[rounds];
        var ours = new double[rounds];
        var logback = new double[rounds];
        String withLogback = without + File.pathSeparator + services();
        for (int round = 0; round < rounds; round++) {
            bare[round] = micros(suite, without, wholeJvm);
            ours[round] = micros(suite, with, wholeJvm) - bare[round];
            logback[round] = micros(suite, withLogback, wholeJvm) - bare[round];
        }
        for (double[] one : List.of(ours, logback)) for (int i = 0; i < rounds; i++) one[i] /= by;
        double more = Figures.median(ours);
        double ratio = more / Figures.median(logback);
        System.out.printf(
                Locale.ROOT,
                "%-20s bare %.0f ms; more, %s: ours %s, Logback's listener %s, ratio %.2f%n",
                what,
                Figures.median(bare) / 1e3,
                wholeJvm ? "ms" : "µs a test",
                Figures.withMiddleHalf(ours),
                Figures.withMiddleHalf(logback),
                ratio);
        return new double[] {more, ratio};
    }

    private static String classPath(String pattern) {
        return Arrays.stream(System.getProperty("java.class.path").split(File.pathSeparator))
                .filter(entry -> entry.matches(pattern))
                .collect(Collectors.joining(File.pathSeparator));
    }

    private static String without(String with) {
        return Arrays.stream(with.split(File.pathSeparator))
                .filter(entry -> !entry.contains("verbale-junit"))
                .collect(Collectors.joining(File.pathSeparator));
    }

    /** A folder that names Logback's listener as a service, for the class path of its JVMs alone. */
    private static Path services() throws IOException {
        Path folder = Sinks.folder();
        Path file = folder.resolve("META-INF/services/org.junit.platform.launcher.TestExecutionListener");
        Files.createDirectories(file.getParent());
        Files.writeString(file, LogbackListener.class.getName());
        return folder;
    }

    private static long micros(Class<?> suite, String classPath, boolean wholeJvm) throws Exception {
        List<String> command = List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Dverbale.root=" + Sinks.folder(),
                "-cp",
                classPath,
                Suite.class.getName(),
                suite.getName());
        long from = System.nanoTime();
        Process jvm = new ProcessBuilder(command).redirectErrorStream(true).start();
        String output = new String(jvm.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (jvm.waitFor() != 0) throw new IllegalStateException(output);
        long whole = (System.nanoTime() - from) / 1_000;
        if (wholeJvm) return whole;
        return Long.parseLong(output.lines()
                .filter(line -> line.startsWith("micros "))
                .findFirst()
                .orElseThrow(() -> new IllegalStateException(output))
                .substring(7));
    }
}
