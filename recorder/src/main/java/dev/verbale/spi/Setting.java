package dev.verbale.spi;

import dev.verbale.border.SafeCopies;
import java.util.List;
import java.util.Locale;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import org.jspecify.annotations.Nullable;

/**
 * A setting that there is. Its value comes from the system property of its key, the environment, or
 * {@code verbale.properties}; a value that it does not allow is a problem of the run, and the fallback holds.
 *
 * <pre>{@code
 * Setting GATE = Setting.oneOf("verbale.gate.side", "north", List.of("north", "south"), "which gate is opened");
 * Setting BED = Setting.matching("verbale.bed", "a1", "[a-z][1-9]", "a letter and a digit", "the bed that is dug");
 * }</pre>
 *
 * @since 0.2.0
 */
public final class Setting {

    private static final String WHOLE_NUMBER = "a whole number";

    private final String key;
    private final String fallback;
    private final List<String> allowed;
    private final String form;
    private final String formText;
    private final String shownFallback;
    private final String meaning;

    private Setting(
            String key,
            @Nullable String fallback,
            @Nullable List<String> allowed,
            @Nullable String form,
            @Nullable String formText,
            String shownFallback,
            String meaning) {
        this.key = String.valueOf(key);
        this.fallback = String.valueOf(fallback);
        this.allowed = SafeCopies.list(allowed);
        this.form = form == null ? "" : form;
        this.formText = formText == null || formText.isBlank() ? "of the form " + this.form : formText;
        this.shownFallback = String.valueOf(shownFallback);
        this.meaning = String.valueOf(meaning);
    }

    /** One of a few words. */
    public static Setting oneOf(String key, String fallback, List<String> allowed, String meaning) {
        return new Setting(key, fallback, allowed, null, null, "`" + fallback + "`", meaning);
    }

    /** {@code true} or {@code false}. */
    public static Setting onOff(String key, boolean fallback, String meaning) {
        return oneOf(key, String.valueOf(fallback), List.of("true", "false"), meaning);
    }

    /** A whole number from 0 on that fits into an {@code int}. */
    public static Setting number(String key, int fallback, String meaning) {
        return matching(key, String.valueOf(fallback), "\\d{1,9}", WHOLE_NUMBER, meaning);
    }

    /** A whole number from 1 on, with at most {@code digits} digits. */
    public static Setting positive(String key, int fallback, int digits, String meaning) {
        String form = "[1-9]\\d{0," + Math.max(0, digits - 1) + "}";
        return matching(key, String.valueOf(fallback), form, WHOLE_NUMBER, meaning);
    }

    /**
     * Any value of one form.
     *
     * @param form a regular expression that the whole value matches
     * @param formText the form in words, as a message says it after "not": {@code a letter and a digit}
     */
    public static Setting matching(String key, String fallback, String form, String formText, String meaning) {
        return new Setting(key, fallback, null, form, formText, "`" + fallback + "`", meaning);
    }

    /** Any text; empty where nothing is set. */
    public static Setting text(String key, String shownFallback, String meaning) {
        return new Setting(key, "", null, null, null, shownFallback, meaning);
    }

    /** What a setting is called in the environment: {@code VERBALE_SUMMARY_LINE}. */
    public static String inEnvironment(String key) {
        return String.valueOf(key).replace('.', '_').replace('-', '_').toUpperCase(Locale.ROOT);
    }

    /** Such as {@code verbale.video}: {@code verbale.}, and words in small letters with dots or hyphens between. */
    public String key() {
        return key;
    }

    /** What holds where nothing is set. */
    public String fallback() {
        return fallback;
    }

    /** The values that it allows; empty where a form says it, or where all are. */
    public List<String> allowed() {
        return allowed;
    }

    /** What the documentation says holds where nothing is set, such as {@code looked for}. */
    public String shownFallback() {
        return shownFallback;
    }

    /** One row of documentation, in Markdown. */
    public String meaning() {
        return meaning;
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
        return form.isEmpty() ? "any text" : formText;
    }

    /** Its key, for messages. */
    @Override
    public String toString() {
        return key;
    }
}
