package dev.verbale.benchmarks;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * What the listener adds to a whole suite: JVMs with it and without it take turns, and the medians are compared. Of the
 * long suites the time inside the launcher counts, of a single test the life of the whole JVM.
 */
public final class SuiteOverhead {

    private static final int ROUNDS = 7;

    private SuiteOverhead() {}

    public static void main(String[] arguments) throws Exception {
        compare("10,000 tests", TrivialTests.TenThousand.class, 10_000, false);
        compare("40,000 tests", TrivialTests.FortyThousand.class, 40_000, false);
        compare("a JVM with one test", TrivialTests.One.class, 1, true);
    }

    private static void compare(String what, Class<?> suite, int tests, boolean wholeJvm) throws Exception {
        List<Long> with = new ArrayList<>();
        List<Long> without = new ArrayList<>();
        for (int round = 0; round < ROUNDS; round++) {
            without.add(micros(suite, "without", wholeJvm));
            with.add(micros(suite, "with", wholeJvm));
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

    private static long micros(Class<?> suite, String listener, boolean wholeJvm) throws Exception {
        List<String> command = List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Dverbale.root=" + Sinks.folder(),
                "-cp",
                System.getProperty("java.class.path"),
                Suite.class.getName(),
                suite.getName(),
                listener);
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
