package dev.verbale.secrets;

import java.util.Locale;
import java.util.Set;

/** Tells values from the words of a sentence, of a program, or of a form that somebody fills in later. */
final class Prose {

    /** After "token:" or "password:" these say something about it. */
    private static final Set<String> SAYS = Set.of(
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

    /** Whether one of the words from {@code from} to {@code to} says something, and all of them are words. */
    static boolean isSentence(String text, int from, int to) {
        boolean says = false;
        for (int i = from; i < to; ) {
            int end = i;
            while (end < to && !Chars.isSpace(text.charAt(end))) end++;
            if (end > i && !isWord(text, i, end)) return false;
            says |= end > i && saysSomething(text, i, end);
            i = end + 1;
        }
        return says;
    }

    /** Whether it stands for no value, or for one that is to be filled in: {@code null}, <code>${PASSWORD}</code>, {@code ***}. */
    static boolean isNoValue(String text, int from, int to) {
        if (to <= from) return true;
        char first = text.charAt(from);
        if ((first == '$' || first == '{') && isPlaceholder(text, from, to)) return true;
        if (first == '%' && to - from == 2) return true;
        boolean stars = true;
        for (int i = from; i < to && stars; i++) stars = "*•.·?-_x".indexOf(text.charAt(i)) >= 0;
        if (stars) return true;
        int end = to;
        while (end > from && isPunctuation(text.charAt(end - 1))) end--;
        if (end - from > 12) return text.startsWith(Mask.TEXT, from) && end - from == Mask.TEXT.length();
        String word = text.substring(from, end);
        return word.equals(Mask.TEXT) || NO_VALUE.contains(word.toLowerCase(Locale.ROOT));
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
