package dev.verbale.secrets;

/**
 * Where in a text something may stand: signs, brackets, digits, and whatever else a secret lies behind or begins with. Nearly all
 * of them are nothing, as what stands before them tells; a text whose stops all are needs no search.
 */
final class Stops {

    private static final int ASCII = 128;
    static final byte PLAIN = 0;
    static final byte SIGN = 1;
    static final byte TAG = 2;
    static final byte AT = 3;
    static final byte HYPHEN = 4;
    static final byte DIGIT = 5;
    static final byte BLANK = 6;
    static final byte SHAPE = 7;
    static final byte SEPARATOR = 8;
    static final byte PERCENT = 9;
    static final byte COMMA = 10;
    static final byte CALL = 11;
    static final byte ENTITY = 12;
    private static final byte[] KINDS = new byte[ASCII];
    /** The kinds of characters in texts of several lines, which may hold tables. */
    private static final byte[] KINDS_IN_LINES;

    static {
        for (char digit = '0'; digit <= '9'; digit++) KINDS[digit] = DIGIT;
        for (char mark : KeyShapes.MARKS.toCharArray()) KINDS[mark] = SHAPE;
        for (char blank : " \t\n\r\f\u000b".toCharArray()) KINDS[blank] = BLANK;
        KINDS['='] = SIGN;
        KINDS[':'] = SIGN;
        KINDS['<'] = TAG;
        KINDS['@'] = AT;
        KINDS['-'] = HYPHEN;
        KINDS['%'] = PERCENT;
        KINDS[','] = COMMA;
        KINDS['('] = CALL;
        KINDS['&'] = ENTITY;
        KINDS['|'] = SEPARATOR;
        KINDS['.'] = SHAPE;
        KINDS_IN_LINES = KINDS.clone();
        for (char separator : Tables.SEPARATORS.toCharArray()) // a tab is a blank too, and looked at as one
        if (KINDS[separator] == PLAIN) KINDS_IN_LINES[separator] = SEPARATOR;
    }

    private final SecretNames names;

    Stops(SecretNames names) {
        this.names = names;
    }

    static byte[] kinds(boolean multiline) {
        return multiline ? KINDS_IN_LINES : KINDS;
    }

    /** Whether there is nothing in {@code text}, as far as its stops tell: true for nearly all that is short. */
    boolean areNothing(String text) {
        if (text.indexOf('\\') >= 0) return false; // a name may be escaped
        boolean multiline = text.indexOf('\n') >= 0;
        byte[] kinds = kinds(multiline);
        int length = text.length();
        for (int i = behindPlain(text, 0, length, kinds); i < length; i = behindPlain(text, i + 1, length, kinds))
            if (!isNothing(text, i, kinds[text.charAt(i)], multiline)) return false;
        return true;
    }

    /** The next character that something may stand at: nearly none is, and this loop is most of what masking costs. */
    static int behindPlain(String text, int from, int length, byte[] kinds) {
        for (int i = from; i < length; i++) {
            char c = text.charAt(i);
            if (c < ASCII && kinds[c] != PLAIN) return i;
        }
        return length;
    }

    /** Whether nothing stands at {@code at}, in a line without a secret name so far, none of whose names is escaped. */
    boolean isNothing(String text, int at, byte kind, boolean multiline) {
        return switch (kind) {
            case SHAPE -> !KeyShapes.mayBeginBefore(text, at);
            case CALL -> !names.endsAny(text, at);
            case SIGN -> isOrdinaryName(text, at);
            case COMMA -> !multiline && at > 0 && text.charAt(at - 1) != '"' && text.charAt(at - 1) != '\'';
            case BLANK -> text.charAt(at) == ' ' && isOrdinaryWord(text, at);
            case DIGIT -> !Cards.mayBeAt(text, at);
            case TAG ->
                at > 0 && Markup.isEnd(text, at) && Chars.isLetter(text.charAt(at - 1)) && !names.endsAny(text, at);
            default -> false;
        };
    }

    /** Whether what stands before the sign at {@code at} is a name like nearly all: nothing there needs a second look. */
    private boolean isOrdinaryName(String text, int at) {
        if (at < 4) return false;
        char before = text.charAt(at - 1);
        boolean isQuoted = before == '"';
        int end = isQuoted ? at - 1 : at;
        char last = isQuoted ? text.charAt(end - 1) : before;
        if ((last < 'a' || last > 'z') && (last < 'A' || last > 'Z') || last == 'm') return false;
        if (names.endsAnyOrNaming(text, end)) return false;
        if (isQuoted || text.charAt(at) != ':') return true;
        char next = at + 1 < text.length() ? text.charAt(at + 1) : ' ';
        if (next == '/' || next == '*') return false;
        int i = at + 1;
        while (i < text.length() && Chars.isDigit(text.charAt(i))) i++;
        return i == at + 1 || i == text.length() || text.charAt(i) != ':'; // a port may be one of a line of passwords
    }

    /** Whether nothing stands behind the word that ends before the blank at {@code at}. */
    boolean isOrdinaryWord(String text, int at) {
        if (at < 2) return true;
        char last = text.charAt(at - 1);
        if (!Chars.isLetter(last)) return true;
        boolean mayBeScheme = (last | 0x20) == 'r' || (last | 0x20) == 'c'; // bearer, basic
        return !mayBeScheme && !names.endsAnyBeforeBlank(text, at);
    }
}
