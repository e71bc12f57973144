package dev.verbale.cli;

import dev.verbale.history.compare.FirstDifference;
import dev.verbale.history.compare.JsonDifference;
import dev.verbale.history.compare.ScreenshotDifference;
import dev.verbale.history.compare.TestComparison;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.Texts;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Single tests of two runs, beside one another. */
final class TestDifferences {

    private static final int MAX_VALUES = 10;
    private static final int LONGEST = 160;

    private final PrintWriter out;
    private final TerminalText text;
    private final @Nullable Path images;

    /** @param images where images of the differences go; null for none */
    TestDifferences(PrintWriter out, TerminalText text, @Nullable Path images) {
        this.out = out;
        this.text = text;
        this.images = images;
    }

    /** The tests of {@code after} whose id holds {@code wanted}; gives how many there are in both. */
    int print(Run before, Run after, String wanted) throws IOException {
        Map<String, TestResult> earlier = new HashMap<>();
        for (TestResult test : before.tests()) if (!test.superseded()) earlier.put(test.key(), test);
        int count = 0;
        for (TestResult test : after.tests()) {
            TestResult then = earlier.get(test.key());
            if (test.superseded() || !test.id().contains(wanted) || then == null) continue;
            print(then, test, ++count);
        }
        return count;
    }

    private void print(TestResult before, TestResult after, int number) throws IOException {
        out.println();
        out.println(text.strong(printable(after.name()))
                + text.dim("  " + before.outcome().text() + ", now "
                        + after.outcome().text()));
        TestComparison comparison = TestComparison.of(before, after);
        comparison
                .first()
                .ifPresentOrElse(this::first, () -> out.println("  Its steps, exchanges and checks went alike."));
        for (TestComparison.ExchangeDifference exchange : comparison.exchanges()) exchange(exchange);
        for (String error : comparison.scriptErrors()) out.println("  console, now: " + printable(error));
        if (comparison.screenshotBefore() != null && comparison.screenshotAfter() != null)
            screenshots(comparison.screenshotBefore(), comparison.screenshotAfter(), number);
    }

    private void first(FirstDifference first) {
        out.println("  first different: " + printable(first.sentence()));
        lines("then", first.linesBefore());
        lines("now", first.linesAfter());
    }

    private void lines(String when, List<String> lines) {
        for (String line : lines) out.println(text.dim("    log, " + when + ": " + printable(line)));
    }

    private void exchange(TestComparison.ExchangeDifference exchange) {
        boolean sameStatus = exchange.statusBefore() == exchange.statusAfter();
        out.println("  " + printable(exchange.request())
                + (sameStatus
                        ? ""
                        : ": " + status(exchange.statusBefore()) + ", now " + status(exchange.statusAfter())));
        List<JsonDifference> values = exchange.values();
        for (JsonDifference value : values.subList(0, Math.min(MAX_VALUES, values.size())))
            out.println("    " + printable(value.sentence()));
        if (values.size() > MAX_VALUES)
            out.println(text.dim("    and " + (values.size() - MAX_VALUES) + " more values"));
    }

    private static String status(int status) {
        return status == 0 ? "no response" : String.valueOf(status);
    }

    private void screenshots(Path before, Path after, int number) throws IOException {
        Optional<ScreenshotDifference> difference = ScreenshotDifference.of(before, after);
        if (difference.isEmpty()) return;
        out.print("  screenshot: "
                + String.format(Locale.ROOT, "%.1f", difference.get().share() * 100)
                + " % of its points are not the same");
        if (images == null) {
            out.println();
            return;
        }
        Files.createDirectories(images);
        Path file = images.resolve("difference-" + number + ".png");
        if (Files.exists(file))
            throw new FileAlreadyExistsException(
                    file.toString(), null, "is there already. Name another folder with --images");
        try (var stream = Files.newOutputStream(file, StandardOpenOption.CREATE_NEW)) {
            difference.get().writePng(stream);
        }
        out.println(": " + file);
    }

    private static String printable(String line) {
        return TerminalText.printable(Texts.cut(line, LONGEST));
    }
}
