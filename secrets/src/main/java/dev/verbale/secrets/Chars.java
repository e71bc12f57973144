package dev.verbale.secrets;

/** Kinds of characters, and where things end. */
final class Chars {

    private static final int ASCII = 128;
    private static final char ESCAPE = 0x1B;
    private static final int LETTER = 1;
    private static final int DIGIT = 2;
    private static final int OF_NAME = 4;
    private static final int SPACE = 8;
    private static final int BEHIND_ATTRIBUTE = 16;

    /** What each character is, for these questions are asked millions of times. */
    private static final byte[] KINDS = new byte[ASCII];

    static {
        for (char c = 'a'; c <= 'z'; c++) KINDS[c] = LETTER | OF_NAME;
        for (char c = 'A'; c <= 'Z'; c++) KINDS[c] = LETTER | OF_NAME;
        for (char c = '0'; c <= '9'; c++) KINDS[c] = DIGIT | OF_NAME;
        for (char c : "_-.$".toCharArray()) KINDS[c] = OF_NAME;
        for (char c : " \t\n\u000b\f\r".toCharArray()) KINDS[c] = SPACE | BEHIND_ATTRIBUTE;
        for (char c : "=>/\"'<".toCharArray()) KINDS[c] = BEHIND_ATTRIBUTE;
    }

    private Chars() {}

    private static boolean is(char c, int kind) {
        return c < ASCII && (KINDS[c] & kind) != 0;
    }

    static boolean isLetter(char c) {
        return c < ASCII ? (KINDS[c] & LETTER) != 0 : Character.isLetter(c);
    }

    static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }

    static boolean isAlphanumeric(char c) {
        return c < ASCII ? (KINDS[c] & (LETTER | DIGIT)) != 0 : Character.isLetter(c);
    }

    static boolean isBlank(char c) {
        return c == ' ' || c == '\t' || c == 0xA0;
    }

    /** Whether a no-break space lies at {@code at} in its two bytes of UTF-8, in a text that was read byte by byte. */
    static boolean isWideBlank(String text, int at) {
        return text.charAt(at) == 0xC2 && at + 1 < text.length() && text.charAt(at + 1) == 0xA0;
    }

    /** Behind the sequence that sets a colour on a terminal and begins at {@code at} (ECMA-48, SGR); {@code at} where none does. */
    static int skipColour(String text, int at) {
        if (at + 2 >= text.length() || text.charAt(at) != ESCAPE || text.charAt(at + 1) != '[') return at;
        int i = at + 2;
        while (i < text.length() && (isDigit(text.charAt(i)) || text.charAt(i) == ';')) i++;
        return i < text.length() && text.charAt(i) == 'm' ? i + 1 : at;
    }

    /** Where the sequence begins that sets a colour and ends before {@code end}; {@code end} where none does. */
    static int beforeColour(String text, int end) {
        if (end < 3 || text.charAt(end - 1) != 'm') return end;
        int i = end - 1;
        while (i > 0 && (isDigit(text.charAt(i - 1)) || text.charAt(i - 1) == ';')) i--;
        return i > 1 && text.charAt(i - 1) == '[' && text.charAt(i - 2) == ESCAPE ? i - 2 : end;
    }

    static boolean isSpace(char c) {
        return is(c, SPACE) || c == 0xA0;
    }

    /** What ends the name of an attribute. */
    static boolean isBehindAttribute(char c) {
        return is(c, BEHIND_ATTRIBUTE) || c == 0xA0;
    }

    /** What may be in a name: of a field, a property, a header. */
    static boolean isOfName(char c) {
        return c < ASCII ? (KINDS[c] & OF_NAME) != 0 : Character.isLetter(c);
    }

    /** What may be in a value that is not quoted and stands in a line with others. */
    static boolean isOfValue(char c) {
        return !isSpace(c) && "\"'<>(){}[]`\u001b".indexOf(c) < 0;
    }

    static boolean isOfToken(char c) {
        return c < 128 && (isAlphanumeric(c) || "-._~+/=".indexOf(c) >= 0);
    }

    static int skipBlanks(String text, int from) {
        int i = from;
        while (i < text.length() && isBlank(text.charAt(i))) i++;
        if (i == text.length()) return i;
        char c = text.charAt(i);
        return c == ESCAPE || c == 0xC2 && isWideBlank(text, i) ? skipColoured(text, i, false) : i;
    }

    static int skipSpaces(String text, int from) {
        int i = from;
        while (i < text.length() && isSpace(text.charAt(i))) i++;
        return i < text.length() && text.charAt(i) == ESCAPE ? skipColoured(text, i, true) : i;
    }

    /** Blanks, or all kinds of space, and what sets colours between them. */
    private static int skipColoured(String text, int from, boolean spaces) {
        int i = from;
        while (i < text.length()) {
            int behind = isWideBlank(text, i) ? i + 2 : skipColour(text, i);
            if (behind == i && (spaces ? isSpace(text.charAt(i)) : isBlank(text.charAt(i)))) behind++;
            if (behind == i) break;
            i = behind;
        }
        return i;
    }

    /** {@code end}, or where the backslashes begin that escape the quote there: they belong to it and not to a value. */
    static int beforeQuote(String text, int from, int end) {
        int quote = end;
        while (quote < text.length() && text.charAt(quote) == '\\') quote++;
        if (quote == text.length() || (text.charAt(quote) != '"' && text.charAt(quote) != '\'')) return end;
        int i = end;
        while (i > from && text.charAt(i - 1) == '\\') i--;
        return i;
    }

    /** Where the line ends that {@code from} lies in, before its line break. */
    static int lineEnd(String text, int from) {
        for (int i = from; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '\n' || c == '\r') return i;
        }
        return text.length();
    }

    /** Where the line begins behind the line end at {@code lineEnd}. */
    static int nextLine(String text, int lineEnd) {
        if (lineEnd >= text.length()) return lineEnd;
        return text.startsWith("\r\n", lineEnd) ? lineEnd + 2 : lineEnd + 1;
    }

    /** Whether a line begins at {@code at}, or what stands behind a name of it: the message of an exception, a value in a query. */
    static boolean isTextStart(String text, int at) {
        return isLineStart(text, at)
                || text.startsWith(": ", at - 2)
                || text.startsWith(":", at - 1)
                || text.startsWith("=", at - 1);
    }

    static boolean isLineStart(String text, int at) {
        int i = at;
        while (i > 0 && isBlank(text.charAt(i - 1))) i--;
        return i == 0 || text.charAt(i - 1) == '\n' || text.charAt(i - 1) == '\r';
    }
}
