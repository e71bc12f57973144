package dev.verbale.benchmarks;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.ToDoubleFunction;

/** The figures that have a goal, as they were measured last: {@code figures.tsv}, of which {@link GoalsPlot} draws a plot. */
final class Figures {

    static final Path FILE = Path.of("figures.tsv");

    private Figures() {}

    /**
     * Keeps a figure.
     *
     * @param name what was measured
     * @param measured the median of its rounds; less is better
     * @param goal at most
     */
    static void put(String name, double measured, double goal, String unit) throws IOException {
        Map<String, String> all = new LinkedHashMap<>();
        if (Files.exists(FILE)) for (String line : Files.readAllLines(FILE)) all.put(line.split("\t")[0], line);
        all.put(name, String.format(Locale.ROOT, "%s\t%.2f\t%.2f\t%s", name, measured, goal, unit));
        Files.write(FILE, all.values(), StandardCharsets.UTF_8);
    }

    static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }

    /** Of what {@code value} finds in each. */
    static <T> double median(List<T> all, ToDoubleFunction<T> value) {
        return median(all.stream().mapToDouble(value).toArray());
    }

    /** Such as {@code 12.3 (11.9 to 14.0)}: the median, the least and the most. */
    static String withSpread(double[] values) {
        return without(values, 0);
    }

    /** A figure with the middle half of the values, where the machine's own noise is as large as what is measured. */
    static String withMiddleHalf(double[] values) {
        return without(values, values.length / 4);
    }

    private static String without(double[] values, int atEachEnd) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return String.format(
                Locale.ROOT,
                "%.1f (%.1f to %.1f)",
                median(values),
                sorted[atEachEnd],
                sorted[sorted.length - 1 - atEachEnd]);
    }
}
