package dev.verbale.benchmarks;

import java.io.File;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/**
 * What the listener adds to a whole suite: JVMs with it on their class path and without it take turns, and the medians are
 * compared. Of the long suites the time inside the launcher counts, of a single test the life of the whole JVM. Arguments:
 * the suites, among {@code One}, {@code TenThousand} and {@code FortyThousand}; all where there are none.
 */
public final class SuiteOverhead {

    private static final int ROUNDS = 7;

    /** Without the adapters of other frameworks, which FrameworkOverhead measures. */
    private static final String WITH = Arrays.stream(
                    System.getProperty("java.class.path").split(File.pathSeparator))
            .filter(entry -> !entry.matches(".*verbale-(testng|cucumber).*"))
            .collect(Collectors.joining(File.pathSeparator));

    private static final String WITHOUT = Arrays.stream(WITH.split(File.pathSeparator))
            .filter(entry -> !entry.contains("verbale-junit"))
            .collect(Collectors.joining(File.pathSeparator));

    private SuiteOverhead() {}

    public static void main(String[] arguments) throws Exception {
        List<String> suites = List.of(arguments);
        if (suites.isEmpty() || suites.contains("One")) compare("a JVM with one test", TrivialTests.One.class, 1, true);
        if (suites.isEmpty() || suites.contains("TenThousand"))
            compare("10,000 tests", TrivialTests.TenThousand.class, 10_000, false);
        if (suites.isEmpty() || suites.contains("FortyThousand"))
            compare("40,000 tests", TrivialTests.FortyThousand.class, 40_000, false);
    }

    private static void compare(String what, Class<?> suite, int tests, boolean wholeJvm) throws Exception {
        List<Long> with = new ArrayList<>();
        List<Long> without = new ArrayList<>();
        for (int round = 0; round < ROUNDS; round++) {
            without.add(micros(suite, WITHOUT, wholeJvm));
            with.add(micros(suite, WITH, wholeJvm));
        }
        long more = median(with) - median(without);
        System.out.printf(
                Locale.ROOT,
                "%-20s without %6.0f ms, with %6.0f ms: %.1f microseconds a test more%n",
                what,
                median(without) / 1e3,
                median(with) / 1e3,
                (double) more / tests);
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
        jvm.waitFor();
        long whole = (System.nanoTime() - from) / 1_000;
        if (wholeJvm) return whole;
        return Long.parseLong(output.lines()
                .filter(line -> line.startsWith("micros "))
                .findFirst()
                .orElseThrow(() -> new IllegalStateException(output))
                .substring(7));
    }

    private static long median(List<Long> values) {
        return values.stream().sorted().skip(values.size() / 2).findFirst().orElseThrow();
    }
}
