package dev.verbale.benchmarks;

import io.cucumber.java.en.Given;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.TestNG;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Suites of tests that do nothing, run by their own framework: says how long that took. */
public final class FrameworkSuites {

    private FrameworkSuites() {}

    /** Rows of data, as a TestNG suite of thousands of tests has them. */
    public static final class Rows {
        @DataProvider
        public static Object[][] rows() {
            var rows = new Object[Integer.getInteger("tests")][];
            for (int i = 0; i < rows.length; i++) rows[i] = new Object[] {i};
            return rows;
        }

        @Test(dataProvider = "rows")
        public void doesNothing(int row) {}
    }

    /** The only step. */
    public static final class Steps {
        @Given("nothing")
        public void nothing() {}
    }

    /** {@code testng} or {@code cucumber}; how many tests is the system property {@code tests}. */
    public static void main(String[] arguments) throws Exception {
        Path feature = feature();
        long from = System.nanoTime();
        if (arguments[0].equals("testng")) testNG();
        else cucumber(feature, arguments.length > 1);
        System.out.println("micros " + (System.nanoTime() - from) / 1_000);
        System.exit(0);
    }

    private static void testNG() {
        var testNG = new TestNG(false);
        testNG.setTestClasses(new Class<?>[] {Rows.class});
        testNG.setVerbose(0);
        testNG.run();
    }

    private static void cucumber(Path feature, boolean recorded) {
        String[] plain = {"--glue", FrameworkSuites.class.getPackageName(), feature.toString()};
        String[] plugin = {
            "--plugin",
            "dev.verbale.cucumber.VerbalePlugin",
            "--glue",
            FrameworkSuites.class.getPackageName(),
            feature.toString()
        };
        io.cucumber.core.cli.Main.run(recorded ? plugin : plain);
    }

    /** Scenarios of three steps. */
    private static Path feature() throws Exception {
        var text = new StringBuilder("Feature: Nothing\n");
        for (int i = 0; i < Integer.getInteger("tests"); i++)
            text.append("  Scenario: number ")
                    .append(i)
                    .append("\n    Given nothing\n    And nothing\n    And nothing\n");
        Path file = Files.createTempFile("nothing", ".feature");
        file.toFile().deleteOnExit();
        return Files.writeString(file, text);
    }
}
