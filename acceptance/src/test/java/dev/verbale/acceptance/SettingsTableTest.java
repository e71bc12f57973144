package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.engine.settings.CoreSettings;
import dev.verbale.spi.Adapter;
import dev.verbale.spi.Setting;
import dev.verbale.testing.MarkedPage;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.ServiceLoader;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** The page's table of settings is made of what the recorder and the adapters bring. */
class SettingsTableTest {

    private static final Path PAGE = Path.of("..", "docs", "settings.md");

    @Test
    void the_page_has_every_setting_with_its_default_and_its_meaning() throws Exception {
        MarkedPage.assertHas(PAGE, "settings", table(), "mvn test -pl acceptance -am -Dtest=SettingsTableTest");
    }

    @Test
    void keys_are_words_in_small_letters_with_dots_or_hyphens_between() {
        assertThat(all()).extracting(Setting::key).allMatch(key -> key.matches("verbale(\\.[a-z]+(-[a-z]+)*)+"));
        assertThat(all()).extracting(Setting::key).doesNotHaveDuplicates();
        assertThat(all()).allMatch(setting -> setting.fallback().isEmpty() || setting.allows(setting.fallback()));
    }

    private static String table() {
        var text = new StringBuilder("| setting | environment | default | meaning |\n|---|---|---|---|\n");
        for (Setting setting : rows())
            text.append("| `")
                    .append(setting.key())
                    .append("` | ")
                    .append(
                            CoreSettings.NAMED.contains(setting)
                                    ? "no"
                                    : "`" + Setting.inEnvironment(setting.key()) + "`")
                    .append(" | ")
                    .append(setting.shownFallback())
                    .append(" | ")
                    .append(setting.meaning())
                    .append(" |\n");
        return text.toString();
    }

    private static List<Setting> rows() {
        return Stream.concat(all().stream(), CoreSettings.NAMED.stream()).toList();
    }

    private static List<Setting> all() {
        List<Setting> ofAdapters = new ArrayList<>();
        ServiceLoader.load(Adapter.class).forEach(adapter -> ofAdapters.addAll(adapter.settings()));
        return Stream.concat(
                        CoreSettings.ALL.stream(), ofAdapters.stream().sorted((a, b) -> group(a).compareTo(group(b))))
                .toList();
    }

    /** What is set of one thing stands together, in its adapter's own order. */
    private static String group(Setting setting) {
        return setting.key().split("\\.")[1];
    }
}
