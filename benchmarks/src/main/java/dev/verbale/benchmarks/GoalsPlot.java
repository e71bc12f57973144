package dev.verbale.benchmarks;

import java.awt.Color;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.knowm.xchart.BitmapEncoder;
import org.knowm.xchart.BitmapEncoder.BitmapFormat;
import org.knowm.xchart.CategoryChart;
import org.knowm.xchart.CategoryChartBuilder;
import org.knowm.xchart.XYChart;
import org.knowm.xchart.XYChartBuilder;
import org.knowm.xchart.internal.chartpart.Chart;
import org.knowm.xchart.style.Styler;
import org.knowm.xchart.style.Styler.ChartTheme;

/**
 * Draws the figures that were measured last: {@code docs/performance.png}, each as a share of its goal, so that 1 is the goal; and
 * {@code docs/reading.png}, seconds over tests; {@code docs/scale.png}, seconds over attempts in a lake.
 */
public final class GoalsPlot {

    private static final Color INK = new Color(0x2b2a26);
    private static final Color BACKGROUND = new Color(0xf8f4e9);
    private static final Color REACHED = new Color(0x5f7f5a);
    private static final Color MISSED = new Color(0xb5533c);

    private GoalsPlot() {}

    public static void main(String[] arguments) throws IOException {
        System.setProperty("java.awt.headless", "true");
        goals();
        reading();
        lake();
    }

    private static void lake() throws IOException {
        XYChart chart = new XYChartBuilder()
                .width(1280)
                .height(560)
                .theme(ChartTheme.XChart)
                .title("The slowest of seven questions to a lake, with 1 GB of memory")
                .xAxisTitle("attempts in the lake")
                .yAxisTitle("seconds")
                .build();
        coloured(chart.getStyler());
        chart.getStyler().setXAxisDecimalPattern("#,###");
        chart.getStyler().setXAxisLogarithmic(true);
        chart.getStyler().setYAxisLogarithmic(true);
        Map<String, TreeMap<Double, Double>> series = new LinkedHashMap<>();
        for (String line : Files.readAllLines(LakeScale.FILE)) {
            String[] figure = line.split("\t");
            series.computeIfAbsent(figure[0], kind -> new TreeMap<>())
                    .put(Double.valueOf(figure[1]), Double.valueOf(figure[2]));
        }
        series.forEach((kind, points) ->
                chart.addSeries(kind, new ArrayList<>(points.keySet()), new ArrayList<>(points.values())));
        save(chart, "scale.png");
    }

    private static void goals() throws IOException {
        List<String> names = new ArrayList<>();
        List<Double> reached = new ArrayList<>();
        List<Double> missed = new ArrayList<>();
        for (String line : Files.readAllLines(Figures.FILE)) {
            String[] figure = line.split("\t");
            double share = Double.parseDouble(figure[1]) / Double.parseDouble(figure[2]);
            names.add(figure[0]);
            reached.add(share <= 1 ? share : 0);
            missed.add(share <= 1 ? 0 : share);
        }
        CategoryChart chart = new CategoryChartBuilder()
                .width(1280)
                .height(720)
                .theme(ChartTheme.XChart)
                .title("What recording and reading take, as a share of the goal (1 is the goal, less is better)")
                .build();
        chart.getStyler().setOverlapped(true);
        chart.getStyler().setAvailableSpaceFill(0.7);
        chart.getStyler().setXAxisLabelRotation(40);
        coloured(chart.getStyler());
        chart.addSeries("goal reached", names, reached).setFillColor(REACHED);
        chart.addSeries("goal missed", names, missed).setFillColor(MISSED);
        save(chart, "performance.png");
    }

    private static void reading() throws IOException {
        XYChart chart = new XYChartBuilder()
                .width(1280)
                .height(560)
                .theme(ChartTheme.XChart)
                .title("Reading a run of 10 steps a test in a heap of 512 MB")
                .xAxisTitle("tests")
                .yAxisTitle("seconds")
                .build();
        coloured(chart.getStyler());
        chart.getStyler().setXAxisDecimalPattern("#,###");
        Map<String, List<double[]>> series = new LinkedHashMap<>();
        for (String line : Files.readAllLines(ReadCurve.FILE)) {
            String[] figure = line.split("\t");
            series.computeIfAbsent(figure[0], kind -> new ArrayList<>())
                    .add(new double[] {Double.parseDouble(figure[1]), Double.parseDouble(figure[2])});
        }
        series.forEach((kind, points) -> chart.addSeries(
                kind,
                points.stream().mapToDouble(point -> point[0]).toArray(),
                points.stream().mapToDouble(point -> point[1]).toArray()));
        save(chart, "reading.png");
    }

    private static void coloured(Styler styler) {
        styler.setChartBackgroundColor(BACKGROUND);
        styler.setPlotBackgroundColor(BACKGROUND);
        styler.setChartFontColor(INK);
    }

    private static void save(Chart<?, ?> chart, String name) throws IOException {
        Path file = Path.of("..", "docs", name);
        BitmapEncoder.saveBitmap(chart, file.toString(), BitmapFormat.PNG);
        System.out.println(file);
    }
}
