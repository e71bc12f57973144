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
 * What the adapters of TestNG and Cucumber add to a suite of tests that do nothing: JVMs with the adapter on their class path and
 * without it take turns, and the medians are compared. Argument: how many tests, 3,000 where it is left out.
 */
public final class FrameworkOverhead {

    private static final int ROUNDS = 7;

    private FrameworkOverhead() {}

    public static void main(String[] arguments) throws Exception {
        int tests = arguments.length == 0 ? 3_000 : Integer.parseInt(arguments[0]);
        compare("testng", "verbale-testng", tests);
        compare("cucumber", "verbale-cucumber", tests);
    }

    private static void compare(String framework, String adapter, int tests) throws Exception {
        List<String> with = Arrays.asList(System.getProperty("java.class.path").split(File.pathSeparator));
        List<String> without =
                with.stream().filter(entry -> !entry.contains(adapter)).toList();
        var recorded = new double[ROUNDS];
        var bare = new double[ROUNDS];
        for (int round = 0; round < ROUNDS; round++) {
            bare[round] = micros(framework, without, tests, false);
            recorded[round] = micros(framework, with, tests, true);
        }
        System.out.printf(
                Locale.ROOT,
                "%-9s %d tests: without %6.0f ms, with %6.0f ms: %.2f times, %.0f microseconds a test more%n",
                framework,
                tests,
                Figures.median(bare) / 1e3,
                Figures.median(recorded) / 1e3,
                Figures.median(recorded) / Figures.median(bare),
                (Figures.median(recorded) - Figures.median(bare)) / tests);
    }

    private static long micros(String framework, List<String> classPath, int tests, boolean recorded) throws Exception {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Dverbale.root=" + Sinks.folder(),
                "-Dtests=" + tests,
                "-cp",
                classPath.stream().collect(Collectors.joining(File.pathSeparator)),
                FrameworkSuites.class.getName(),
                framework));
        if (recorded) command.add("recorded");
        Process jvm = new ProcessBuilder(command).redirectErrorStream(true).start();
        String output = new String(jvm.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        jvm.waitFor();
        return Long.parseLong(output.lines()
                .filter(line -> line.startsWith("micros "))
                .findFirst()
                .orElseThrow(() -> new IllegalStateException(output))
                .substring("micros ".length()));
    }
}
