package dev.verbale.secrets;

import java.util.Locale;
import java.util.Set;

/** Tells values from the words of a sentence, of a program, or of a form that somebody fills in later. */
final class Prose {

    /** After "token:" or "password:" these say something about it. */
    private static final Set<String> SAYS = Set.of(
            "entered",
            "chosen",
            "short",
            "under",
            "contains",
            "contain",
            "than",
            "matches",
            "match",
            "long",
            "least",
            "length",
            "at",
            "a",
            "accepted",
            "accessible",
            "already",
            "an",
            "and",
            "are",
            "as",
            "be",
            "been",
            "blank",
            "by",
            "can",
            "cannot",
            "changed",
            "could",
            "denied",
            "did",
            "does",
            "empty",
            "error",
            "expected",
            "expired",
            "fail",
            "failed",
            "failure",
            "field",
            "for",
            "found",
            "from",
            "given",
            "got",
            "had",
            "has",
            "have",
            "hidden",
            "if",
            "in",
            "incorrect",
            "invalid",
            "is",
            "it",
            "may",
            "mismatch",
            "missing",
            "must",
            "needs",
            "never",
            "no",
            "not",
            "of",
            "ok",
            "on",
            "only",
            "option",
            "optional",
            "or",
            "please",
            "present",
            "refused",
            "rejected",
            "required",
            "reset",
            "revoked",
            "see",
            "sent",
            "set",
            "should",
            "the",
            "this",
            "to",
            "too",
            "unexpected",
            "unknown",
            "unset",
            "updated",
            "use",
            "used",
            "valid",
            "value",
            "was",
            "were",
            "when",
            "which",
            "will",
            "with",
            "without",
            "wrong",
            "yes",
            "your");

    /** What stands for no value, in some language of programs. */
    private static final Set<String> NO_VALUE = Set.of(
            "null",
            "true",
            "false",
            "undefined",
            "none",
            "nil",
            "nan",
            "void",
            "this",
            "self",
            "new",
            "string",
            "str",
            "int",
            "integer",
            "number",
            "boolean",
            "bool",
            "any",
            "object",
            "char",
            "bytes",
            "optional",
            "function",
            "typeof",
            "await",
            "return",
            "masked",
            "redacted");

    /** Before a name they tell that it is spoken of, as parsers speak of tokens. */
    private static final Set<String> SPEAKS_OF = Set.of(
            "unexpected", "illegal", "expected", "next", "unrecognized", "unterminated", "offending", "encountered");

    /** What a token or a set of credentials may be, rather than which one it is. */
    private static final Set<String> KINDS = Set.of(
            "basic",
            "bearer",
            "cookie",
            "digest",
            "disabled",
            "enabled",
            "env",
            "external",
            "file",
            "header",
            "include",
            "internal",
            "jwt",
            "keyword",
            "local",
            "oauth",
            "oauth2",
            "omit",
            "opaque",
            "password",
            "plain",
            "private",
            "public",
            "query",
            "same-origin",
            "session",
            "shared",
            "text",
            "vault");

    private static final int LONGEST_PLACEHOLDER = 200;

    private Prose() {}

    /** Whether it is a word of letters alone, or a constant such as {@code END_OF_FILE}. */
    static boolean isWord(String text, int from, int to) {
        boolean capitals = true;
        boolean letters = true;
        int humps = 0;
        for (int i = from; i < to; i++) {
            char c = text.charAt(i);
            boolean letter = Chars.isLetter(c) || ((c == '\'' || c == '’') && i > from && i < to - 1);
            letters &= letter || isPunctuation(c) && i == to - 1;
            capitals &= c == '_' || (c >= 'A' && c <= 'Z') || (isPunctuation(c) && i == to - 1);
            if (i > from && Character.isUpperCase(c) && Character.isLowerCase(text.charAt(i - 1))) humps++;
        }
        return capitals || (letters && humps < 2 && to - from <= 20);
    }

    private static boolean isPunctuation(char c) {
        return ".,;:!?".indexOf(c) >= 0;
    }

    /** Whether the word at {@code from} says something about what was named before it. */
    static boolean saysSomething(String text, int from, int to) {
        int end = to;
        while (end > from && isPunctuation(text.charAt(end - 1))) end--;
        return SAYS.contains(text.substring(from, end).toLowerCase(Locale.ROOT));
    }

    /** Whether it is a sentence that says something in two words of three or more: of fewer, a quoted one may be a password. */
    static boolean isRemark(String text, int from, int to) {
        int words = 0;
        int says = 0;
        for (int i = from; i < to; ) {
            int end = i;
            while (end < to && !Chars.isSpace(text.charAt(end))) {
                if (text.charAt(end) == ':') return false;
                end++;
            }
            if (end > i) words++;
            if (end > i && saysSomething(text, i, end)) says++;
            i = end + 1;
        }
        return words > 2 && says > 1 && isSentence(text, from, to);
    }

    private static boolean isCount(String text, int from, int to) {
        int end = to;
        while (end > from && isPunctuation(text.charAt(end - 1))) end--;
        for (int i = from; i < end; i++) if (!Chars.isDigit(text.charAt(i))) return false;
        return end > from && end - from <= 3;
    }

    /** Whether one of the words from {@code from} to {@code to} says something, and all of them are words. */
    static boolean isSentence(String text, int from, int to) {
        boolean says = false;
        for (int i = from; i < to; ) {
            int end = i;
            while (end < to && !Chars.isSpace(text.charAt(end))) end++;
            if (end > i && !isWord(text, i, end) && !(i > from && isCount(text, i, end))) return false;
            says |= end > i && saysSomething(text, i, end);
            i = end + 1;
        }
        return says;
    }

    /** Whether it is a kind of secret, or a measure such as <i>6 digits</i> or <i>8 characters or more</i>. */
    static boolean describes(String text, int from, int to, int sentenceEnd) {
        int end = to;
        while (end > from && isPunctuation(text.charAt(end - 1))) end--;
        if (KINDS.contains(text.substring(from, end).toLowerCase(Locale.ROOT))) return true;
        if (end - from > 3) return false;
        for (int i = from; i < end; i++) if (!Chars.isDigit(text.charAt(i))) return false;
        int next = Chars.skipBlanks(text, to);
        int word = next;
        while (word < sentenceEnd && Chars.isLetter(text.charAt(word))) word++;
        return end > from && word > next + 1 && next > to;
    }

    /** Whether a name goes by itself: {@code token: Token}. */
    static boolean isOwnName(String text, int name, int nameEnd, int from, int to) {
        int length = to - from;
        return length >= 3
                && nameEnd - name >= length
                && text.regionMatches(true, nameEnd - length, text, from, length);
    }

    /** Whether it stands for no value, or for one that is to be filled in: {@code null}, <code>${PASSWORD}</code>, {@code ***}. */
    static boolean isNoValue(String text, int from, int to) {
        if (to <= from) return true;
        char first = text.charAt(from);
        if ((first == '$' || first == '{') && isPlaceholder(text, from, to)) return true;
        if (first == '%' && (to - from == 2 || text.charAt(to - 1) == '%' && isVariable(text, from + 1, to - 1)))
            return true;
        if (first == '$' && isVariable(text, from + 1, to)) return true;
        if ((first == '@' || first == '#' || first == ':') && isVariable(text, from + 1, to)) return true;
        boolean stars = true;
        for (int i = from; i < to && stars; i++) stars = "*•.·?-_x".indexOf(text.charAt(i)) >= 0;
        if (stars) return true;
        int end = to;
        while (end > from && isPunctuation(text.charAt(end - 1))) end--;
        if (end - from > 12) return text.startsWith(Mask.TEXT, from) && end - from == Mask.TEXT.length();
        String word = text.substring(from, end);
        return word.equals(Mask.TEXT) || NO_VALUE.contains(word.toLowerCase(Locale.ROOT));
    }

    /** A variable of a shell, {@code $PASSWORD} or {@code $env:PASSWORD}, or of a statement: small letters and digits may be a password. */
    private static boolean isVariable(String text, int from, int to) {
        int start = text.startsWith("env:", from) ? from + 4 : from;
        boolean letters = true;
        boolean capitals = true;
        for (int i = start; i < to; i++) {
            char c = text.charAt(i);
            letters &= Chars.isLetter(c) || c == '_' || c == '.';
            capitals &= Character.isUpperCase(c) || c == '_' || Chars.isDigit(c);
        }
        return to > start && (letters || capitals && !Chars.isDigit(text.charAt(start)));
    }

    /** <code>${X}</code>, {@code $(X)}, <code>{{X}}</code> and <code>{}</code>; with quotes in it it is a value. */
    private static boolean isPlaceholder(String text, int from, int to) {
        if (to - from < 2 || to - from >= LONGEST_PLACEHOLDER) return false;
        for (int i = from; i < to; i++) if ("\"'\\&".indexOf(text.charAt(i)) >= 0) return false;
        char last = text.charAt(to - 1);
        if (text.charAt(from) == '{') return last == '}' && (to - from <= 3 || text.charAt(from + 1) == '{');
        char second = text.charAt(from + 1);
        return (second == '{' && last == '}') || (second == '(' && last == ')');
    }

    /** Whether what is before the name that begins at {@code at} speaks of it: <i>unexpected</i> token. */
    static boolean speaksOf(String text, int at) {
        int end = at;
        while (end > 0 && Chars.isBlank(text.charAt(end - 1))) end--;
        int from = end;
        while (from > 0 && Chars.isLetter(text.charAt(from - 1))) from--;
        return from < end
                && end < at
                && SPEAKS_OF.contains(text.substring(from, end).toLowerCase(Locale.ROOT));
    }
}
