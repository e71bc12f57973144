package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Verbale;
import dev.verbale.results.RunReader;
import dev.verbale.results.summary.Headline;
import dev.verbale.testing.Jvm;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.runner.JUnitCore;

/** A framework whose adapter is missing runs tests that record, and nobody tells of them. */
class UnrecordedTest {

    @TempDir
    Path root;

    @Test
    void tests_that_nobody_told_of_are_said_to_have_run() throws Exception {
        Jvm jvm = Jvm.java(
                Map.of(),
                Path.of("").toAbsolutePath(),
                "-Dverbale.root=" + root.toAbsolutePath(),
                JUnitCore.class.getName(),
                Sample.class.getName());

        assertThat(jvm.code()).as(jvm.output()).isZero();
        assertThat(jvm.output())
                .contains(
                        "Verbale: no test was recorded. Tests of JUnit 4 ran and were not recorded: its adapter is not on the class path, or not registered");
        assertThat(Headline.of(RunReader.read(root)))
                .isEqualTo(
                        "No test was recorded. The run is incomplete: not in it are tests of JUnit 4: its adapter is not on the class path, or not registered.");
    }

    /** A suite of JUnit 4. */
    public static class Sample {
        @org.junit.Test
        public void opens() {
            Verbale.step("Open the gate", () -> Verbale.log("it opens"));
        }
    }
}
