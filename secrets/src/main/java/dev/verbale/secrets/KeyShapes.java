package dev.verbale.secrets;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Secrets that are known by their own shape, whatever stands around them. */
final class KeyShapes {

    private static final String PEM = "-----BEGIN ";
    private static final String PEM_END = "-----END ";

    /** Each with how it begins; what is before it is no part of a longer word. */
    private record Shape(String beginning, LatePattern pattern) {
        Shape(String beginning, String rest) {
            this(beginning, new LatePattern(Pattern.quote(beginning) + rest));
        }
    }

    private static final List<Shape> SHAPES = List.of(
            new Shape("AKIA", "[A-Z0-9]{16}(?![A-Za-z0-9])"),
            new Shape("ASIA", "[A-Z0-9]{16}(?![A-Za-z0-9])"),
            new Shape("AIza", "[\\w-]{35}"),
            new Shape("ghp_", "[A-Za-z0-9]{36,}"),
            new Shape("gho_", "[A-Za-z0-9]{36,}"),
            new Shape("ghu_", "[A-Za-z0-9]{36,}"),
            new Shape("ghs_", "[A-Za-z0-9]{36,}"),
            new Shape("ghr_", "[A-Za-z0-9]{36,}"),
            new Shape("github_pat_", "\\w{22,}"),
            new Shape("glpat-", "[\\w-]{20,}"),
            new Shape("npm_", "[A-Za-z0-9]{36}"),
            new Shape("sk_live_", "\\w{16,}"),
            new Shape("sk_test_", "\\w{16,}"),
            new Shape("rk_live_", "\\w{16,}"),
            new Shape("xoxb-", "[\\w-]{10,}"),
            new Shape("xoxp-", "[\\w-]{10,}"),
            new Shape("xoxa-", "[\\w-]{10,}"),
            new Shape("xoxs-", "[\\w-]{10,}"));

    /** A JSON Web Token, RFC 7519: a header in Base64 always begins so. */
    private static final String TOKEN = "eyJ";

    private static final int SHORTEST_PART = 8;

    /** Each shape has one of these soon after its beginning, and texts have few. */
    static final String MARKS = "JI_";

    /** Where the beginning of a shape may lie before a mark: that of {@code github_pat_} is the furthest. */
    private static final int[] BEFORE_J = {2};

    private static final int[] BEFORE_I = {2, 1};
    private static final int[] BEFORE_UNDERSCORE = {3, 2, 6};
    private static final int[] BEFORE_HYPHEN = {4, 5};
    private static final int[] NOWHERE = {};

    /** Up to here letters, digits and hyphens were followed: more than one token may begin in them, and none end. */
    private int followed;

    private int begun;

    /** Another text, or a piece of one that is looked at from {@code from} on. */
    void begin(int from) {
        followed = 0;
        begun = from;
    }

    /** Looks at the mark or the hyphen at {@code at}, before which one may begin. */
    void findAt(String text, int at, Found found) {
        for (int before : before(text.charAt(at))) {
            int from = at - before;
            if (from < begun || from < found.end()) continue;
            if (from > 0 && (Chars.isAlphanumeric(text.charAt(from - 1)) || text.charAt(from - 1) == '_')) continue;
            findFrom(text, from, found);
            if (found.end() > at) return;
        }
    }

    private static int[] before(char mark) {
        return switch (mark) {
            case 'J' -> BEFORE_J;
            case 'I' -> BEFORE_I;
            case '_' -> BEFORE_UNDERSCORE;
            case '-' -> BEFORE_HYPHEN;
            default -> NOWHERE;
        };
    }

    private void findFrom(String text, int at, Found found) {
        if (text.startsWith(TOKEN, at)) webToken(text, at, found);
        else
            for (Shape shape : SHAPES) {
                if (!text.startsWith(shape.beginning(), at)) continue;
                Matcher matcher = shape.pattern().matcher(text).region(at, text.length());
                if (!matcher.lookingAt()) continue;
                if (matcher.end() == text.length()) found.addOpen(at, matcher.end(), Mask.TEXT, Rest.ofWord());
                else found.add(at, matcher.end(), Mask.TEXT);
                return;
            }
    }

    private void webToken(String text, int at, Found found) {
        int dot = partEnd(text, Math.max(at, followed));
        followed = dot;
        if (dot == text.length() || text.charAt(dot) != '.' || dot - at < TOKEN.length() + SHORTEST_PART) return;
        int end = partEnd(text, dot + 1);
        if (end - dot <= SHORTEST_PART) return;
        while (end < text.length() && (isOfPart(text.charAt(end)) || text.charAt(end) == '.')) end++;
        if (end == text.length()) found.addOpen(at, end, Mask.TEXT, Rest.ofWord());
        else found.add(at, end, Mask.TEXT);
    }

    private static int partEnd(String text, int from) {
        int end = from;
        while (end < text.length() && isOfPart(text.charAt(end))) end++;
        return end;
    }

    private static boolean isOfPart(char c) {
        return c < 128 && (Chars.isAlphanumeric(c) || c == '_' || c == '-');
    }

    /** Looks at the hyphen at {@code at}: a private key in PEM form (RFC 7468), its lines or their escapes. */
    static void pem(String text, int at, Found found) {
        if (!text.startsWith(PEM, at)) return;
        int head = text.indexOf("-----", at + PEM.length());
        if (head < 0 || head - at > 80 || !text.substring(at, head).contains("PRIVATE KEY")) return;
        int from = head + 5;
        int to = from;
        while (to < text.length() && isOfPem(text, to)) to++;
        to = Chars.beforeQuote(text, from, to);
        String line = text.startsWith("\\n", from) ? "\\n" : text.startsWith("\n", from) ? "\n" : "";
        if (to == text.length()) found.addOpen(from, to, line + Mask.TEXT + line, KeyShapes::pemEnd);
        else found.add(from, to, line + Mask.TEXT + (text.startsWith(PEM_END, to) ? line : ""));
    }

    private static int pemEnd(String text, int from) {
        for (int i = from; i < text.length(); i++) if (!isOfPem(text, i)) return i;
        return -1;
    }

    /** All up to its last line; where there is none, up to what closes the text that it stands in. */
    private static boolean isOfPem(String text, int at) {
        char c = text.charAt(at);
        return c != '"' && c != '\'' && c != '<' && !(c == '-' && text.startsWith(PEM_END, at));
    }
}
