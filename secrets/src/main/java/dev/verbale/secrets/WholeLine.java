package dev.verbale.secrets;

/** Where a header ends whose whole line is its value: its quotes and brackets are the value's own, but for those around it all. */
final class WholeLine {

    private static final int FURTHEST = 2_000;

    private WholeLine() {}

    /**
     * @param name where the header's name begins
     * @param value where its value begins
     * @param limit nobody looks further
     */
    static int end(String text, int name, int value, int limit) {
        String around = around(text, name);
        int line = value;
        while (line < limit && text.charAt(line) != '\n' && text.charAt(line) != '\r') line++;
        if (!around.isEmpty()) {
            int close = limit < text.length()
                    ? Quotes.closeNear(text, value, around, limit - value)
                    : Quotes.close(text, value, around);
            return close < 0 || close > line && around.length() == 1 ? line : close;
        }
        int escaped = escapedLineEnd(text, value, line);
        return isInBrackets(text, name) ? bracketEnd(text, value, escaped) : escaped;
    }

    /** A line of a text that is quoted in a log has its line break written out. */
    private static int escapedLineEnd(String text, int from, int to) {
        for (int i = from; i + 1 < to; i++)
            if (text.charAt(i) == '\\' && (text.charAt(i + 1) == 'n' || text.charAt(i + 1) == 'r')) return i;
        return to;
    }

    /** The quote that opens in the line before {@code at} and is not closed there; empty for none. */
    private static String around(String text, int at) {
        int from = at;
        while (from > 0 && at - from < FURTHEST && text.charAt(from - 1) != '\n' && text.charAt(from - 1) != '\r')
            from--;
        String open = "";
        for (int i = from; i < at; i++) {
            String quote = Quotes.at(text, i);
            if (quote.isEmpty() || quote.charAt(0) == '%') continue;
            if (open.isEmpty()) {
                boolean apostrophe = quote.equals("'") && i > from && Chars.isLetter(text.charAt(i - 1));
                if (!apostrophe) open = quote;
            } else if (open.equals(quote)) open = "";
            i += quote.length() - 1;
        }
        return open;
    }

    private static boolean isInBrackets(String text, int at) {
        int depth = 0;
        for (int i = at - 1; i >= 0 && at - i < FURTHEST; i--) {
            char c = text.charAt(i);
            if (c == '\n') return false;
            if (c == ']' || c == '}') depth++;
            else if ((c == '[' || c == '{') && depth-- == 0) return true;
        }
        return false;
    }

    private static int bracketEnd(String text, int from, int to) {
        int depth = 0;
        for (int i = from; i < to; i++) {
            char c = text.charAt(i);
            if (c == '[' || c == '{') depth++;
            else if ((c == ']' || c == '}') && depth-- == 0) return i;
        }
        return to;
    }
}
