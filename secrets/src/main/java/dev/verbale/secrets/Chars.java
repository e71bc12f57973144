package dev.verbale.secrets;

/** Kinds of characters, and where things end. */
final class Chars {

    private static final int ASCII = 128;
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
        return c == ' ' || c == '\t';
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
        return !isSpace(c) && "\"'<>(){}[]`".indexOf(c) < 0;
    }

    static boolean isOfToken(char c) {
        return c < 128 && (isAlphanumeric(c) || "-._~+/=".indexOf(c) >= 0);
    }

    static int skipBlanks(String text, int from) {
        int i = from;
        while (i < text.length() && isBlank(text.charAt(i))) i++;
        return i;
    }

    static int skipSpaces(String text, int from) {
        int i = from;
        while (i < text.length() && isSpace(text.charAt(i))) i++;
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

    static boolean isLineStart(String text, int at) {
        int i = at;
        while (i > 0 && isBlank(text.charAt(i - 1))) i--;
        return i == 0 || text.charAt(i - 1) == '\n' || text.charAt(i - 1) == '\r';
    }
}
