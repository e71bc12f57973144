package dev.verbale.results;

import org.jspecify.annotations.Nullable;

/**
 * Text that a test recorded, as other syntaxes take it for nothing but text. Safe from any thread.
 *
 * @since 0.2.0
 */
public final class Escaped {

    private Escaped() {}

    /** In an element or in a quoted attribute of HTML. */
    public static String html(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;")
                .replace("'", "&#39;");
    }

    /** In a cell of a table: what a spreadsheet would take for a formula has an apostrophe before it. Null gives an empty one. */
    public static String cell(@Nullable String text) {
        if (text == null || text.isEmpty()) return "";
        return "=+-@\t\r".indexOf(text.charAt(0)) < 0 ? text : "'" + text;
    }
}
