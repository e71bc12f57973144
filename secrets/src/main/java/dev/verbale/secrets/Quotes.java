package dev.verbale.secrets;

/**
 * Quotes as they stand in texts: plain ones, and those that a quotation around them escaped, once or several times:
 * {@code "}, {@code '}, {@code \"}, {@code \\\"}, an entity.
 */
final class Quotes {

    private static final String ENTITY = "&quot;";

    private Quotes() {}

    /** The quote that begins at {@code at}; empty where none does. */
    static String at(String text, int at) {
        int i = at;
        while (i < text.length() && text.charAt(i) == '\\' && i - at < 15) i++;
        if (i < text.length() && (text.charAt(i) == '"' || text.charAt(i) == '\'')) return text.substring(at, i + 1);
        return text.startsWith(ENTITY, at) ? ENTITY : "";
    }

    /** The quote that ends right before {@code end}; empty where none does. */
    static String before(String text, int end) {
        int length = lengthBefore(text, end);
        return length == 0 ? "" : text.substring(end - length, end);
    }

    /** The length of the quote that ends right before {@code end}; 0 where none does. */
    static int lengthBefore(String text, int end) {
        if (end <= 0) return 0;
        char last = text.charAt(end - 1);
        if (last == ';' && text.startsWith(ENTITY, end - ENTITY.length())) return ENTITY.length();
        if (last != '"' && last != '\'') return 0;
        int from = end - 1;
        while (from > 0 && text.charAt(from - 1) == '\\') from--;
        return end - from;
    }

    /** Where the text ends that {@code quote} opened before {@code from}: at the next quote of its own kind; -1 for nowhere. */
    static int close(String text, int from, String quote) {
        if (quote.equals(ENTITY)) return text.indexOf(ENTITY, from);
        char mark = quote.charAt(quote.length() - 1);
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
