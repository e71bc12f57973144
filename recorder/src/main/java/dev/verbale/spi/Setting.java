package dev.verbale.spi;

import dev.verbale.border.SafeCopies;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;

/**
 * A setting that there is. Its value comes from the system property {@code key}, the environment, or
 * {@code verbale.properties}; a value that it does not allow is a problem of the run, and the fallback holds.
 *
 * @param key such as {@code verbale.video}: {@code verbale.}, and words in small letters with dots or hyphens between
 * @param fallback what holds where nothing is set
 * @param allowed the values that it allows; empty where a pattern says it
 * @param form a regular expression of the values that it allows; empty where {@code allowed} says it, or where all are
 * @param shownFallback what the documentation says holds where nothing is set, such as {@code looked for}
 * @param meaning one row of documentation, in Markdown
 * @since 0.2.0
 */
public record Setting(
        String key, String fallback, List<String> allowed, String form, String shownFallback, String meaning) {

    public Setting {
        key = String.valueOf(key);
        fallback = String.valueOf(fallback);
        allowed = SafeCopies.list(allowed);
        form = form == null ? "" : form;
    }

    /** One of a few words. */
    public static Setting oneOf(String key, String fallback, List<String> allowed, String meaning) {
        return new Setting(key, fallback, allowed, "", "`" + fallback + "`", meaning);
    }

    /** {@code true} or {@code false}. */
    public static Setting onOff(String key, boolean fallback, String meaning) {
        return oneOf(key, String.valueOf(fallback), List.of("true", "false"), meaning);
    }

    /** A whole number from 0 on that fits into an {@code int}. */
    public static Setting number(String key, int fallback, String meaning) {
        return new Setting(key, String.valueOf(fallback), List.of(), "\\d{1,9}", "`" + fallback + "`", meaning);
    }

    /** A whole number from 1 on, with at most {@code digits} digits. */
    public static Setting positive(String key, int fallback, int digits, String meaning) {
        String form = "[1-9]\\d{0," + Math.max(0, digits - 1) + "}";
        return new Setting(key, String.valueOf(fallback), List.of(), form, "`" + fallback + "`", meaning);
    }

    /** Any text; empty where nothing is set. */
    public static Setting text(String key, String shownFallback, String meaning) {
        return new Setting(key, "", List.of(), "", shownFallback, meaning);
    }

    /** What a setting is called in the environment: {@code VERBALE_SUMMARY_LINE}. */
    public static String inEnvironment(String key) {
        return String.valueOf(key).replace('.', '_').replace('-', '_').toUpperCase(Locale.ROOT);
    }

    /** Whether it may have {@code value}. */
    public boolean allows(String value) {
        if (value == null) return false;
        if (!allowed.isEmpty()) return allowed.contains(value);
        try {
            return form.isEmpty() || Pattern.matches(form, value);
        } catch (PatternSyntaxException broken) {
            return true; // its author's mistake, and not that of whoever set it
        }
    }

    /** What it allows, for a message: such as {@code one of failures, all, none}. */
    public String allowedText() {
        if (!allowed.isEmpty()) return "one of " + String.join(", ", allowed);
        return form.isEmpty() ? "any text" : "a whole number";
    }
}
