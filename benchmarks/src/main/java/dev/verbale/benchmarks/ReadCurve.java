package dev.verbale.benchmarks;

import dev.verbale.folder.RunFolder;
import dev.verbale.report.Page;
import dev.verbale.report.PageOptions;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.reason.FailureReason;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Runs of 1,000 to 300,000 tests of 10 steps, one in twenty failing, in a heap of 512 MB: how tests ended, failures with their reasons,
 * and the page. {@code bin/bench ReadCurve [TESTS ...]}.
 */
public final class ReadCurve {

    private static final int ROUNDS = 7;
    private static final List<String> KINDS = List.of("results", "failures", "page");
    private static final Map<String, Double> GOALS = Map.of("results", 5.0, "failures", 6.0, "page", 9.0);

    /** What is measured, of how many tests, in how many seconds; {@link GoalsPlot} draws it. */
    static final Path FILE = Path.of("reading.tsv");

    private ReadCurve() {}

    /** {@code [TESTS ...]}, or {@code KIND FOLDER} in the small heap, which prints its seconds. */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        if (arguments.length == 2 && KINDS.contains(arguments[0])) {
            System.out.println(seconds(arguments[0], Path.of(arguments[1])));
            return;
        }
        List<String> sizes =
                arguments.length > 0 ? List.of(arguments) : List.of("1000", "10000", "30000", "100000", "300000");
        for (String size : sizes) {
            Path work = Files.createTempDirectory("read-curve");
            try {
                PageScale.record(work, Integer.parseInt(size));
                for (String kind : KINDS) measure(size, kind, work.resolve("run"));
            } finally {
                ReadScale.delete(work);
            }
        }
    }

    private static void measure(String size, String kind, Path run) throws IOException, InterruptedException {
        var seconds = new double[ROUNDS];
        for (int round = 0; round < ROUNDS; round++) seconds[round] = again(kind, run);
        System.out.printf(Locale.ROOT, "%s tests, %s: %s s%n", size, kind, Figures.withSpread(seconds));
        if (Integer.parseInt(size) <= 1_000 && kind.equals(KINDS.get(0))) Files.deleteIfExists(FILE);
        String line = String.format(Locale.ROOT, "%s\t%s\t%.2f%n", kind, size, Figures.median(seconds));
        Files.writeString(FILE, line, StandardOpenOption.CREATE, StandardOpenOption.APPEND);
        if (size.equals("100000"))
            Figures.put(kind + " of 100,000 tests", Figures.median(seconds), GOALS.getOrDefault(kind, 0.0), "s");
    }

    private static double again(String kind, Path run) throws IOException, InterruptedException {
        Process jvm = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-Xmx512m",
                        "-cp",
                        System.getProperty("java.class.path"),
                        ReadCurve.class.getName(),
                        kind,
                        run.toString())
                .redirectErrorStream(true)
                .start();
        String output = new String(jvm.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (jvm.waitFor() != 0) throw new IllegalStateException(output);
        return Double.parseDouble(output.strip());
    }

    private static double seconds(String kind, Path folder) throws IOException {
        var run = new RunFolder(folder);
        long from = System.nanoTime();
        if (kind.equals("page")) Page.write(run, run.page(), PageOptions.PLAIN, any -> true);
        else if (kind.equals("failures")) {
            Run read = RunReader.read(folder, TestKeeper.FAILURES);
            if (FailureReason.of(read).isEmpty()) throw new IllegalStateException("one in twenty fails");
        } else if (RunReader.read(folder, TestKeeper.ENDS).counts().all() == 0)
            throw new IllegalStateException("there are tests");
        return (System.nanoTime() - from) / 1e9;
    }
}
