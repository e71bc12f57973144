package orto;

import dev.verbale.Scope;
import dev.verbale.Verbale;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.spi.TestLifecycle;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Runs a table of keywords: a test is the rows with its name, a step is a row. It tells Verbale what it does, and no more. */
public final class TableRunner {

    private final TestLifecycle lifecycle = TestLifecycle.current();
    private String garden = "";

    public static void main(String[] arguments) throws Exception {
        new TableRunner().run(Path.of("tables/garden.csv"));
    }

    private void run(Path table) throws Exception {
        Map<String, List<String[]>> tests = new LinkedHashMap<>();
        List<String> rows = Files.readAllLines(table);
        for (String row : rows.subList(1, rows.size())) {
            String[] cells = row.split(",", -1);
            tests.computeIfAbsent(cells[0], name -> new ArrayList<>()).add(cells);
        }
        String file = table.getFileName().toString();
        Scope container = lifecycle.startContainer(lifecycle.run(), TestDescriptor.of(file, file).build());
        tests.forEach((name, steps) -> test(container, file, name, steps));
        lifecycle.endContainer(container, TestEnd.passed(), 0);
        lifecycle.sessionEnded();
    }

    private void test(Scope container, String file, String name, List<String[]> steps) {
        // the key is the same in every run: by it a test is found again
        Scope test = lifecycle.startTest(container, TestDescriptor.of(file + "/" + name, name).tags(List.of("table")).build());
        try {
            for (String[] step : steps)
                Verbale.step(step[1] + " " + step[2], () -> keyword(step[1], step[2]));
            lifecycle.endTest(test, TestEnd.passed());
        } catch (Throwable failure) {
            lifecycle.endTest(test, TestEnd.threw(failure)); // evidence is captured now, unless the step did it
        }
    }

    private void keyword(String keyword, String argument) {
        switch (keyword) {
            case "open" -> garden = argument;
            case "swap" -> garden += " with Dario on " + argument;
            case "weed" -> Verbale.log("weeds the bed in the {}", argument);
            case "expect" -> {
                if (!garden.contains(argument)) throw new AssertionError("no " + argument + " in the " + garden);
            }
            default -> throw new IllegalArgumentException("there is no keyword " + keyword);
        }
    }
}
