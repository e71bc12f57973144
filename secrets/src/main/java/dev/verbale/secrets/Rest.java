package dev.verbale.secrets;

/** Finds the end of a secret of which only the beginning was seen: one as long as a file is not held in memory. */
@FunctionalInterface
interface Rest {

    /** Nothing of it is left. */
    Rest NONE = (text, from) -> from;

    /** Where it ends in {@code text}, or -1 where it goes on behind it. Called in order, with piece after piece. */
    int end(String text, int from);

    /** Up to the quote that closes it; a backslash before one keeps it open. */
    static Rest ofQuoted(String quote) {
        char last = quote.charAt(quote.length() - 1);
        return (text, from) -> {
            for (int i = from; i < text.length(); i++) {
                if (quote.length() == 1 && text.charAt(i) == '\\') i++;
                else if (text.charAt(i) == last && text.startsWith(quote, i - quote.length() + 1))
                    return i - quote.length() + 1;
            }
            return -1;
        };
    }

    /** Up to the end of the line. */
    static Rest ofLine() {
        return (text, from) -> {
            int end = Chars.lineEnd(text, from);
            return end < text.length() ? end : -1;
        };
    }

    /** Up to where {@code sign} stands. */
    static Rest before(String sign) {
        return (text, from) -> text.indexOf(sign, from);
    }

    /** Up to the first character that no word has. */
    static Rest ofWord() {
        return (text, from) -> {
            for (int i = from; i < text.length(); i++) if (!Chars.isOfValue(text.charAt(i))) return i;
            return -1;
        };
    }
}
