package dev.verbale.engine.settings;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.RecorderOptions;
import dev.verbale.spi.Setting;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import org.junit.jupiter.api.Test;

/** Where settings come from, and what a bad one does. */
class SettingsTest {

    private static final Setting GATE =
            Setting.oneOf("verbale.gate.sound", "bell", List.of("bell", "horn"), "how the gate sounds");

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

        assertThat(options)
                .isEqualTo(RecorderOptions.defaults()
                        .withEnabled(false)
                        .withRoot(Path.of("from-system"))
                        .withRun("nightly-7"));
    }

    @Test
    void a_name_of_two_words_has_an_underscore_in_the_environment() {
        assertThat(settings(Map.of("VERBALE_SUMMARY_LINE", "false")).options().summaryLine())
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
    void lists_numbers_links_and_facts_are_read() {
        file.setProperty("verbale.secret.names", "gate, shed");
        file.setProperty("verbale.log.lines", "50");
        file.setProperty("verbale.link.issue", "GARDEN-\\d+ https://tracker.example/$0");
        file.setProperty("verbale.fact.season", "summer");
        file.setProperty("verbale.tags", " nightly,staging, nightly ,");
        Settings settings = settings(Map.of());

        RecorderOptions options = settings.options();

        assertThat(options.secretNames()).containsExactly("gate", "shed");
        assertThat(options.logging().linesATest()).isEqualTo(50);
        assertThat(options.linkPatterns())
                .containsExactly(new RecorderOptions.LinkPattern("GARDEN-\\d+", "https://tracker.example/$0"));
        assertThat(settings.facts())
                .containsExactly(Map.entry("season", "summer"), Map.entry("tags", "nightly, staging"));
        assertThat(settings.problems()).isEmpty();
    }

    @Test
    void an_unknown_one_is_answered_with_what_was_most_likely_meant() {
        system.setProperty("verbale.sumary-line", "false");
        file.setProperty("verbale.secret.name", "x");
        file.setProperty("verbale.link.issue", "no address");
        file.setProperty("verbale.log.lines", "many");
        Settings settings = settings(Map.of());

        settings.options();

        assertThat(settings.problems())
                .anyMatch(p ->
                        p.equals("verbale.sumary-line: there is no such setting. Did you mean verbale.summary-line?"))
                .anyMatch(p ->
                        p.equals("verbale.secret.name: there is no such setting. Did you mean verbale.secret.names?"))
                .anyMatch(p -> p.startsWith("verbale.log.lines=many (verbale.properties): not a whole number"))
                .hasSize(3);
    }

    @Test
    void an_adapters_setting_is_read_as_the_recorders_own_are() {
        file.setProperty("verbale.gate.sound", "horn");
        assertThat(settings(Map.of()).options().settings()).containsEntry("verbale.gate.sound", "horn");
        assertThat(settings(Map.of("VERBALE_GATE_SOUND", "bell")).options().settings())
                .containsEntry("verbale.gate.sound", "bell");

        system.setProperty("verbale.gate.sound", "whistle");
        Settings bad = settings(Map.of());
        assertThat(bad.options().settings()).isEmpty();
        assertThat(bad.problems())
                .containsExactly("verbale.gate.sound=whistle (system property): not one of bell, horn. Using bell.");
    }

    /** A properties file is shared by modules that do not have the same adapters. */
    @Test
    void a_setting_of_an_adapter_that_is_not_there_is_no_mistake_and_a_slip_of_the_finger_is_one() {
        file.setProperty("verbale.greenhouse.pane", "double");
        file.setProperty("verbale.gate.sounds", "horn");
        Settings settings = settings(Map.of());

        settings.options();

        assertThat(settings.problems())
                .containsExactly("verbale.gate.sounds: there is no such setting. Did you mean verbale.gate.sound?");
    }

    @Test
    void a_property_of_the_builds_own_is_none_unless_it_is_nearly_a_known_one() {
        for (String own : List.of("verbale.version", "verbale.build.run", "verbale.it.port"))
            system.setProperty(own, "1");
        system.setProperty("verbale.rooot", "runs");
        Settings settings = settings(Map.of());

        settings.options();

        assertThat(settings.problems())
                .containsExactly("verbale.rooot: there is no such setting. Did you mean verbale.root?");
    }

    private Settings settings(Map<String, String> environment) {
        return new Settings(system, environment, file, List.of(GATE));
    }
}
