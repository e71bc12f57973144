package dev.verbale.secrets;

import java.util.HashMap;
import java.util.Map;

/** Masks what stands in a JSON list or object whose name is secret, and leaves it a list or an object. */
final class JsonLeaves {

    private static final int LONGEST_SCHEMA = 10_000;

    /** Up to where texts in such quotes are masked: of lists in lists only the outermost is looked through. */
    private Map<String, Integer> masked = Map.of();

    /** Another text. */
    void begin() {
        masked = Map.of();
    }

    /**
     * @param at where it begins, with a bracket
     * @param limit where the text ends that it stands in
     * @param isDoubtful whether only what looks like a secret is one
     * @param quote what its texts are quoted with, as the name of it is
     */
    void mask(String text, int at, int limit, String quote, boolean isDoubtful, Found found) {
        if (at < masked.getOrDefault(quote, 0)) return;
        int depth = 0;
        int end = end(text, at, limit, quote);
        if (isDoubtful && (limit < text.length() && end >= limit || new Depth(quote).end(text, at) < 0)) return;
        if (limit < text.length() && end >= limit) {
            found.add(at + 1, Chars.beforeQuote(text, at + 1, limit), quote + Mask.TEXT + quote);
            return;
        }
        if (end == text.length() && new Depth(quote).end(text, at) < 0) {
            found.addOpen(at + 1, end, quote + Mask.TEXT + quote, new Depth(quote).inside(text, at));
            return;
        }
        if (end - at < LONGEST_SCHEMA && isSchema(text.substring(at, end), quote)) return;
        if (masked.isEmpty()) masked = new HashMap<>(2); // nearly no text needs it
        masked.put(quote, end);
        for (int i = at; i < end; ) {
            char c = text.charAt(i);
            if (c == '{' || c == '[') depth++;
            if ((c == '}' || c == ']') && --depth == 0) return;
            if (text.startsWith(quote, i)) i = quoted(text, i, quote, isDoubtful, found);
            else if (isDoubtful) i++;
            else if (c == '-' || Chars.isDigit(c)) i = number(text, i, quote, found);
            else i++;
        }
    }

    /** Counts brackets outside of texts, through the pieces of a long one. */
    private static final class Depth implements Rest {
        private final String quote;
        private int depth;
        private boolean inText;

        Depth(String quote) {
            this.quote = quote;
        }

        /** After what {@code text} has of it from {@code from} on. */
        Depth inside(String text, int from) {
            end(text, from);
            return this;
        }

        @Override
        public int end(String text, int from) {
            for (int i = from; i < text.length(); i++) {
                char c = text.charAt(i);
                if (inText && quote.length() == 1 && c == '\\') i++;
                else if (text.startsWith(quote, i)) {
                    inText = !inText;
                    i += quote.length() - 1;
                } else if (!inText && (c == '{' || c == '[')) depth++;
                else if (!inText && (c == '}' || c == ']') && --depth == 0) return i;
            }
            return -1;
        }
    }

    private static int end(String text, int at, int limit, String quote) {
        int depth = 0;
        for (int i = at; i < limit; i++) {
            char c = text.charAt(i);
            if (c == '{' || c == '[') depth++;
            if ((c == '}' || c == ']') && --depth == 0) return i + 1;
            if (text.startsWith(quote, i)) {
                int close = Quotes.close(text, i + quote.length(), quote);
                if (close < 0) return limit;
                i = close + quote.length() - 1;
            }
        }
        return limit;
    }

    /** A description of a field that is called so: it says of what type it is. */
    private static boolean isSchema(String object, String quote) {
        return object.startsWith("{")
                && (object.contains(quote + "type" + quote) || object.contains(quote + "$ref" + quote));
    }

    /** @return where to look on */
    private static int quoted(String text, int at, String quote, boolean isDoubtful, Found found) {
        int from = at + quote.length();
        int to = Quotes.close(text, from, quote);
        if (to < 0) {
            found.addOpen(from, text.length(), Mask.TEXT, Rest.ofQuoted(quote));
            return text.length();
        }
        int behind = to + quote.length();
        int next = Chars.skipSpaces(text, behind);
        boolean isName = next < text.length() && text.charAt(next) == ':';
        boolean isSecret = isDoubtful
                ? Evidence.looksSecret(text, from, to)
                : !Prose.isNoValue(text, from, to) && !Prose.isRemark(text, from, Math.min(to, from + 300));
        if (!isName && isSecret) found.add(from, to, Mask.TEXT);
        return behind;
    }

    private static int number(String text, int at, String quote, Found found) {
        int to = at + 1;
        while (to < text.length() && (Chars.isAlphanumeric(text.charAt(to)) || ".+-".indexOf(text.charAt(to)) >= 0))
            to++;
        found.add(at, to, quote + Mask.TEXT + quote);
        return to;
    }
}
