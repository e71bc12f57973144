package dev.verbale.secrets;

/**
 * Quotes as they stand in texts: plain ones, those of texts of several lines, and those that a quotation around them escaped, once
 * or several times: {@code "}, {@code \'\'\'}, {@code \"}, {@code \\\"}, an entity, {@code %22}.
 */
final class Quotes {

    private static final String ENTITY = "&quot;";
    private static final String DOUBLE = "\"";
    private static final String SINGLE = "'";
    private static final int MAX_ESCAPES = 15;

    private Quotes() {}

    /** The quote that begins at {@code at}; empty where none does. */
    static String at(String text, int at) {
        if (at >= text.length()) return "";
        char first = text.charAt(at);
        return switch (first) {
            case '"', '\'' -> isThree(text, at, first) ? text.substring(at, at + 3) : first == '"' ? DOUBLE : SINGLE;
            case '\\' -> escaped(text, at);
            case '`', '\u201c' -> text.substring(at, at + 1);
            case '%' -> text.substring(at, Percent.behind(text, at, "22", "27"));
            case '&' -> text.startsWith(ENTITY, at) ? ENTITY : "";
            default -> "";
        };
    }

    private static boolean isThree(String text, int at, char quote) {
        return text.length() > at + 3
                && text.charAt(at + 1) == quote
                && text.charAt(at + 2) == quote
                && (text.charAt(at + 3) == '\n' || text.charAt(at + 3) == '\r' || text.charAt(at + 3) != quote);
    }

    private static String escaped(String text, int at) {
        int i = at;
        while (i < text.length() && text.charAt(i) == '\\' && i - at < MAX_ESCAPES) i++;
        return i < text.length() && (text.charAt(i) == '"' || text.charAt(i) == '\'') ? text.substring(at, i + 1) : "";
    }

    /** The quote that ends right before {@code end}, as those of names do; empty where none does. */
    static String before(String text, int end) {
        int length = lengthBefore(text, end);
        if (length == 1) return text.charAt(end - 1) == '"' ? DOUBLE : SINGLE;
        return length == 0 ? "" : text.substring(end - length, end);
    }

    /** The length of the quote that ends right before {@code end}; 0 where none does. */
    static int lengthBefore(String text, int end) {
        if (end <= 0) return 0;
        char last = text.charAt(end - 1);
        if (last == ';' && text.startsWith(ENTITY, end - ENTITY.length())) return ENTITY.length();
        if (last == '2' || last == '7') return end - Percent.before(text, end, "22", "27");
        if (last != '"' && last != '\'') return 0;
        int from = end - 1;
        while (from > 0 && text.charAt(from - 1) == '\\') from--;
        return end - from;
    }

    /** As {@link #close}, and no further than {@code furthest} characters: of what is not closed nobody reads on to the end of the text. */
    static int closeNear(String text, int from, String quote, int furthest) {
        int limit = Math.min(text.length(), from + furthest);
        int close = close(text.substring(from, limit), 0, quote);
        if (close < 0) return -1;
        close += from;
        if (!quote.endsWith("\"")) // one that goes over the end of a text of JSON is none
        for (int i = from; i < close; i++) if (text.charAt(i) == '"') return -1;
        return close;
    }

    /** Where the text ends that {@code quote} opened before {@code from}: at the next quote of its own kind; -1 for nowhere. */
    static int close(String text, int from, String quote) {
        char mark = quote.charAt(quote.length() - 1);
        if (mark == '\u201c') return text.indexOf('\u201d', from);
        if (mark == ';' || quote.charAt(0) == '%' || quote.length() == 3 && quote.charAt(0) == mark)
            return text.indexOf(quote, from);
        int level = quote.length() - 1;
        int backslashes = 0;
        for (int i = from; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '\\') backslashes++;
            else {
                // A quote of this text's own has as many backslashes as the one that opened it; one inside has more.
                if (c == mark && backslashes <= level && (level > 0 || backslashes % 2 == 0)) return i - backslashes;
                if (c == mark && level == 0 && backslashes % 2 == 0) return i;
                backslashes = 0;
            }
        }
        return -1;
    }
}
