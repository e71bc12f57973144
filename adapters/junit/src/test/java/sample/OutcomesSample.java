package sample;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertAll;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import dev.verbale.Verbale;
import java.io.IOException;
import java.nio.file.Files;
import java.util.stream.Stream;
import org.junit.jupiter.api.Disabled;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.MediaType;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.TestReporter;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Every way in which a test can end, and every kind of test. Run by tests, never by the build. */
@DisplayName("The garden")
@Tag("garden")
public class OutcomesSample {

    @Test
    @DisplayName("a bean grows")
    @Tag("bean")
    void passes() {}

    @Test
    void differs() {
        assertEquals("Ada waters", "Dario waters", "the rota");
    }

    @Test
    void differsInAssertJ() {
        assertThat("Ada").isEqualTo("Dario");
    }

    @Test
    void differsTwice() {
        assertAll(() -> assertEquals(1, 2), () -> assertEquals("a", "b"));
    }

    @Test
    void breaks() throws IOException {
        throw new IOException("no tools", new IllegalStateException("the shed is locked"));
    }

    @Test
    void givesUp() {
        assumeTrue(false, "needs rain");
    }

    @Test
    void givesUpInAStep() {
        Verbale.step("Look at the sky", () -> assumeTrue(false, "needs rain"));
    }

    @Test
    @Disabled("next season")
    void waits() {}

    @Test
    void reports(TestReporter reporter) {
        Verbale.step("Report", () -> {
            reporter.publishEntry("plot", "12");
            reporter.publishEntry("a line");
        });
        reporter.publishFile("harvest.csv", MediaType.TEXT_PLAIN, file -> Files.writeString(file, "plot,kilos\n"));
    }

    @ParameterizedTest(name = "{0} on plot {1}")
    @CsvSource({"Kale, 1", "Basil, 2"})
    void grows(String crop, int plot) {
        assertThat(crop).isNotEqualTo("Basil");
    }

    @RepeatedTest(2)
    void again() {}

    @TestFactory
    Stream<DynamicTest> seeds() {
        return Stream.of("Borage", "Kale")
                .map(seed -> DynamicTest.dynamicTest(seed, () -> {
                    if (seed.equals("Kale")) throw new AssertionError("eaten");
                }));
    }

    @Nested
    @DisplayName("in winter")
    class Winter {
        @Test
        void sleeps() {}
    }
}
