package dev.verbale.report;

import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * What of a page is set by texts: in a file of settings, by a build tool, on a command line.
 *
 * @since 0.2.0
 */
public final class PageSettings {

    /**
     * A setting.
     *
     * @param key as in {@code verbale.properties}
     * @param meaning for a table of settings, in Markdown
     */
    public record Named(String key, String meaning) {

        /** What it is called in the environment, such as {@code VERBALE_PAGE_TITLE}. */
        public String inEnvironment() {
            return key.replace('.', '_').replace('-', '_').toUpperCase(Locale.ROOT);
        }
    }

    /** @see PageLook#title() */
    public static final Named TITLE =
            new Named("verbale.page.title", "what stands at the top of each view of the page");

    /** @see PageLook#subtitle() */
    public static final Named SUBTITLE =
            new Named("verbale.page.subtitle", "a line above the sentence of the page's summary");

    /** @see PageLook#logo() */
    public static final Named LOGO = new Named(
            "verbale.page.logo", "an image beside the title: a PNG, JPEG, GIF, WebP or SVG of at most 200 kB");

    /** @see PageLook#accent() */
    public static final Named ACCENT = new Named(
            "verbale.page.accent",
            "the colour of links in the page, such as `#b5532a`; made lighter or darker until it can be read");

    /** @see PageContent#leftOut() */
    public static final Named LEAVE_OUT = new Named(
            "verbale.page.leave-out",
            "what is not in the page, between commas: `passed` for what happened in tests that passed, `environment` for its facts");

    /** @see PageContent#minLevel() */
    public static final Named MIN_LEVEL = new Named(
            "verbale.page.min-level",
            "the least level of log lines in the page: `TRACE`, `DEBUG`, `INFO`, `WARN`, `ERROR`");

    /** All of them. */
    public static final List<Named> ALL = List.of(TITLE, SUBTITLE, LOGO, ACCENT, LEAVE_OUT, MIN_LEVEL);

    private PageSettings() {}

    /**
     * @param value of a setting; null or empty where it is not set
     * @throws IllegalArgumentException where one has a value that it cannot have; the message names both
     */
    public static PageOptions options(Function<Named, @Nullable String> value) {
        try {
            return PageOptions.PLAIN
                    .withLook(PageLook.of(
                            text(value, TITLE), text(value, SUBTITLE), text(value, LOGO), text(value, ACCENT)))
                    .withContent(PageContent.of(text(value, LEAVE_OUT), text(value, MIN_LEVEL)));
        } catch (IllegalArgumentException wrong) {
            throw new IllegalArgumentException("A setting of the page cannot be used: " + wrong.getMessage(), wrong);
        }
    }

    private static String text(Function<Named, @Nullable String> value, Named setting) {
        String text = value.apply(setting);
        return text == null ? "" : text.strip();
    }
}
