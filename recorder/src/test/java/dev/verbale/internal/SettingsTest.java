package dev.verbale.internal;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.recorder.RecorderOptions;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import org.junit.jupiter.api.Test;

/** Where settings come from, and what a bad one does. */
class SettingsTest {

    private final Properties system = new Properties();
    private final Properties file = new Properties();

    @Test
    void without_any_the_defaults_hold() {
        assertThat(settings(Map.of()).options()).isEqualTo(RecorderOptions.defaults());
    }

    @Test
    void the_system_property_wins_over_the_environment_and_that_over_the_file() {
        file.setProperty("verbale.root", "from-file");
        file.setProperty("verbale.run", "from-file");
        file.setProperty("verbale.enabled", "off");
        system.setProperty("verbale.root", "from-system");

        RecorderOptions options = settings(Map.of("VERBALE_ROOT", "from-environment", "VERBALE_RUN", "nightly-7"))
                .options();

        assertThat(options).isEqualTo(new RecorderOptions(false, Path.of("from-system"), "nightly-7", true));
    }

    @Test
    void a_name_of_two_words_has_an_underscore_in_the_environment() {
        assertThat(settings(Map.of("VERBALE_CLOSING_LINE", "false")).options().closingLine())
                .isFalse();
    }

    @Test
    void a_bad_one_says_its_source_and_what_is_done_instead() {
        system.setProperty("verbale.enabled", "perhaps");
        system.setProperty("verbale.run", "../elsewhere");
        Settings settings = settings(Map.of());

        assertThat(settings.options()).isEqualTo(RecorderOptions.defaults());
        assertThat(settings.problems())
                .containsExactly(
                        "verbale.enabled=perhaps (system property): neither true nor false. Using true.",
                        "verbale.run=../elsewhere (system property): not a folder's name. Using a new run. "
                                + "Write letters, digits, dots, hyphens and underscores, 100 at most.");
    }

    @Test
    void the_guide_has_every_setting_with_its_name_in_the_environment() throws Exception {
        List<String> rows = Files.readAllLines(Path.of("..", "docs", "guide.md")).stream()
                .filter(line -> line.startsWith("| `verbale."))
                .map(line -> line.replaceAll("^\\| `(.*?)` \\| `(.*?)` .*", "$1 $2"))
                .toList();

        assertThat(rows)
                .isEqualTo(Settings.ALL.stream()
                        .map(key -> key + " " + Settings.inEnvironment(key))
                        .toList());
    }

    private Settings settings(Map<String, String> environment) {
        return new Settings(system, environment, file);
    }
}
