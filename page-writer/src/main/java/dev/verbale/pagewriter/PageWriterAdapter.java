package dev.verbale.pagewriter;

import dev.verbale.report.PageSettings;
import dev.verbale.spi.Adapter;
import dev.verbale.spi.Setting;
import java.util.ArrayList;
import java.util.List;

/**
 * Brings the setting that says when a page is written.
 *
 * @since 0.2.0
 */
public final class PageWriterAdapter implements Adapter {

    static final Setting PAGE = Setting.oneOf(
            "verbale.page",
            "always",
            List.of("off", "failures", "always"),
            "when a page is written at the end of a run: `failures` where a test needs attention; also what the Maven plugin goes by");

    /** As {@link java.util.ServiceLoader} makes it. */
    public PageWriterAdapter() {}

    @Override
    public List<Setting> settings() {
        List<Setting> settings = new ArrayList<>(List.of(PAGE));
        for (PageSettings.Named named : PageSettings.ALL) settings.add(setting(named));
        return settings;
    }

    static Setting setting(PageSettings.Named named) {
        return Setting.text(named.key(), "none", named.meaning());
    }
}
