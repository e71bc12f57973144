package dev.verbale.secrets;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What may stand between a sign and its value: remarks, tags, marks of a notation, what wraps the value. */
final class Openings {

    private static final int FURTHEST = 200;
    private static final LatePattern TAGS = new LatePattern("(?:</?[A-Za-z][^<>]{0,80}>\\s*)+");

    /** Of texts in Python, C#, C++ and Rust. */
    private static final LatePattern PREFIX = new LatePattern("(?:[uUbBrRfFL$@]|br|rb|Rb|bR|\\$@|@\\$|r#)(?=[\"'])");

    private static final LatePattern WRAPPED = new LatePattern(
            "(?:new\\s+)?(?:Optional|Some|Just|Present|Right|Ok|Value|String|str|bytes|ByteString|Secret(?:Str|String|Value)?|Buffer\\.from|url|quote)[\\[(](?=[^\\])])");
    private static final LatePattern YAML_MARKS = new LatePattern("(?:[&!][\\w!./-]{1,40}[ \\t]+)+(?=\\S)");

    private static final LatePattern TYPE = new LatePattern(
            "[A-Za-z_][\\w.]*(?:<[\\w., ]*>|\\[])?[?!]?[ \\t]*(?:\\|[ \\t]*\\w+[ \\t]*)?=[ \\t]*(?=[\"'`])",
            Pattern.DOTALL);

    private Openings() {}

    /** Where the value begins that {@code at} is before. */
    static int behind(String text, int at) {
        int from = at;
        for (int i = 0; i < 4 && from < text.length(); i++) {
            int next = behindOne(text, from);
            if (next == from) return from;
            from = next;
        }
        return from;
    }

    private static int behindOne(String text, int at) {
        char c = text.charAt(at);
        return switch (c) {
            case '&' -> text.startsWith("&nbsp;", at) ? at + 6 : behind(YAML_MARKS, text, at);
            case '/' -> behindRemark(text, at);
            case '<' -> behind(TAGS, text, at);
            case '!' -> behind(YAML_MARKS, text, at);
            case '\\' -> behindContinuation(text, at);
            default -> {
                if (!Chars.isLetter(c) && c != '$' && c != '@') yield at;
                int word = at + 1;
                while (word < text.length() && word - at < 40 && isOfWrapper(text.charAt(word))) word++;
                if (word == text.length()) yield at;
                char behind = text.charAt(word);
                if (word - at < 3 && (behind == '"' || behind == '\'' || behind == '#')) yield behind(PREFIX, text, at);
                yield behind == '[' || behind == '(' ? behind(WRAPPED, text, at) : at;
            }
        };
    }

    private static boolean isOfWrapper(char c) {
        return Chars.isAlphanumeric(c) || c == '.' || c == ' ' || c == '$' || c == '@';
    }

    /** Of properties: the line goes on in the next one. */
    private static int behindContinuation(String text, int at) {
        int next = at + 1;
        if (next >= text.length() || text.charAt(next) != '\n' && text.charAt(next) != '\r') return at;
        return Chars.skipBlanks(text, Chars.nextLine(text, next));
    }

    private static int behindRemark(String text, int at) {
        if (!text.startsWith("/*", at)) return at;
        int end = text.indexOf("*/", at + 2);
        return end < 0 || end - at > FURTHEST ? at : Chars.skipSpaces(text, end + 2);
    }

    private static int behind(LatePattern pattern, String text, int at) {
        Matcher matcher = pattern.matcher(text).region(at, Math.min(text.length(), at + FURTHEST));
        return matcher.lookingAt() ? matcher.end() : at;
    }

    /** Behind the type that a declaration has and the sign behind that; {@code at} where there is none. */
    static int behindType(String text, int at) {
        if (!Chars.isLetter(text.charAt(at))) return at;
        int word = at + 1;
        while (word < text.length() && (Chars.isOfName(text.charAt(word)) || text.charAt(word) == ' ')) word++;
        boolean mayBe = word < text.length() && "=<[?!|".indexOf(text.charAt(word)) >= 0;
        return mayBe ? behind(TYPE, text, at) : at;
    }
}
