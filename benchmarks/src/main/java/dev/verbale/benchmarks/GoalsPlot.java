package dev.verbale.benchmarks;

import java.awt.Color;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.knowm.xchart.BitmapEncoder;
import org.knowm.xchart.BitmapEncoder.BitmapFormat;
import org.knowm.xchart.CategoryChart;
import org.knowm.xchart.CategoryChartBuilder;
import org.knowm.xchart.style.Styler.ChartTheme;

/** Draws {@code docs/performance.png} of the figures that were measured last: each as a share of its goal, so that 1 is the goal. */
public final class GoalsPlot {

    private static final Color INK = new Color(0x2b2a26);
    private static final Color BACKGROUND = new Color(0xf8f4e9);
    private static final Color REACHED = new Color(0x5f7f5a);
    private static final Color MISSED = new Color(0xb5533c);

    private GoalsPlot() {}

    public static void main(String[] arguments) throws IOException {
        System.setProperty("java.awt.headless", "true");
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
        chart.getStyler().setChartBackgroundColor(BACKGROUND);
        chart.getStyler().setPlotBackgroundColor(BACKGROUND);
        chart.getStyler().setChartFontColor(INK);
        chart.addSeries("goal reached", names, reached).setFillColor(REACHED);
        chart.addSeries("goal missed", names, missed).setFillColor(MISSED);
        Path file = Path.of("..", "docs", "performance.png");
        BitmapEncoder.saveBitmap(chart, file.toString(), BitmapFormat.PNG);
        System.out.println(file);
    }
}
