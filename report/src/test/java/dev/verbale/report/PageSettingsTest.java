package dev.verbale.report;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.event.LogWritten;
import dev.verbale.event.TestEnded;
import dev.verbale.event.TestStarted;
import dev.verbale.results.Run;
import dev.verbale.results.SampleRun;
import dev.verbale.vocabulary.Outcome;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PageSettingsTest {

    @TempDir
    Path root;

    @ParameterizedTest
    @ValueSource(strings = {"#ffffff", "#000000", "#ffaa00", "#7f7f7f", "#0000ff", "#00ff00", "#f8f4ea", "#1b1915"})
    void any_colour_can_be_read_on_both_grounds(String colour) {
        Accent accent = Accent.of(colour);

        assertThat(Accent.contrast(number(accent.light()), 0xf8f4ea)).isGreaterThanOrEqualTo(4.5);
        assertThat(Accent.contrast(number(accent.dark()), 0x1b1915)).isGreaterThanOrEqualTo(4.5);
    }

    @Test
    void a_colour_that_can_be_read_stays_as_it_is() {
        assertThat(Accent.of("#1f4e6b").light()).isEqualTo("#1f4e6b");
        assertThat(Accent.of("#9cc6df").dark()).isEqualTo("#9cc6df");
        assertThat(Accent.contrast(0xffffff, 0x000000)).as("by the guidelines").isEqualTo(21.0);
    }

    private static int number(String colour) {
        return Integer.parseInt(colour.substring(1), 16);
    }

    @Test
    void what_cannot_be_set_is_refused_by_its_name() throws Exception {
        Path text = Files.writeString(root.resolve("logo.txt"), "x");
        Path large = Files.write(root.resolve("large.png"), new byte[300_000]);

        refused(Map.of("verbale.page.accent", "red; } body { display: none"), "the colour 'red; }", "#b5532a");
        refused(
                Map.of("verbale.page.leave-out", "passed,failures"),
                "'failures' cannot be left out",
                "passed or environment");
        refused(Map.of("verbale.page.min-level", "LOUD"), "the level 'LOUD'", "TRACE, DEBUG");
        refused(Map.of("verbale.page.logo", text.toString()), "logo.txt is no PNG");
        refused(Map.of("verbale.page.logo", root.resolve("none.png").toString()), "there is no logo ", "none.png");
        assertThatThrownBy(
                        () -> PageSettings.options(named -> named.equals(PageSettings.LOGO) ? large.toString() : null))
                .hasMessageContaining("longer than 200000 bytes");
    }

    private static void refused(Map<String, String> set, String... words) {
        assertThatThrownBy(() -> PageSettings.options(named -> set.get(named.key())))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContainingAll(words);
    }

    @Test
    void log_lines_below_a_level_are_left_out_and_those_of_unknown_levels_stay() throws Exception {
        SampleRun sample = SampleRun.in(root, "run")
                .write(TestStarted.of(0, 1, "k", "k")
                        .className("s.T")
                        .thread("main")
                        .build());
        for (String level : List.of("TRACE", "debug", "INFO", "WARN", "ERROR", "AUDIT"))
            sample.write(LogWritten.of(1, 1, "a line of " + level)
                    .level(level)
                    .logger("a.B")
                    .thread("main")
                    .build());
        sample.write(TestEnded.of(9, 1, Outcome.FAILED)
                .failure(SampleRun.failure("java.lang.AssertionError", "no rain"))
                .build());
        Run run = sample.read();

        Path index =
                Page.write(run, root.resolve("page"), PageOptions.PLAIN.withContent(new PageContent(Set.of(), "warn")));

        for (String file : List.of("data/tests/0.js", "data/failures/0.js"))
            assertThat(Files.readString(index.resolveSibling(file)))
                    .as(file)
                    .contains("a line of WARN", "a line of ERROR", "a line of AUDIT")
                    .doesNotContain("a line of TRACE", "a line of debug", "a line of INFO");
    }
}
