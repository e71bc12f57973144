package dev.verbale.secrets;

import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The slow search: finds secrets by the names and shapes around them, and masks them. */
final class Masks {

    private static final String MASK = Redactor.MASK;
    private static final int CARD_LONGEST = 19;

    private static final Pattern CREDENTIALS =
            Pattern.compile("\\b(bearer|basic|digest)(\\s+)[\\w.~+/=-]{6,}", Pattern.CASE_INSENSITIVE);
    private static final Pattern URL_USER = Pattern.compile("(\\w://)[^\\s/@:\"'<>]*:[^\\s/@\"'<>]*@");
    private static final Pattern CARD = Pattern.compile("(?<![\\w.-])\\d(?:[ -]?\\d){12,18}(?![\\w-])");
    private static final Pattern PASSWORD_FIELD = Pattern.compile(
            "(<input\\b(?=[^>]*\\btype\\s*=\\s*[\"']?password)[^>]*?\\bvalue\\s*=\\s*)(\"[^\"]*\"|'[^']*'|[^\\s>]+)",
            Pattern.CASE_INSENSITIVE);

    // Possessive: a plain repetition of alternatives takes the stack once for each character of a long token.
    private static final String QUOTES = "\"[^\"\\\\]*+(?:\\\\.[^\"\\\\]*+)*+\"";
    private static final String APOSTROPHES = "'[^'\\\\]*+(?:\\\\.[^'\\\\]*+)*+'";
    private static final String ESCAPED_QUOTES = "\\\\\"[^\"\\\\]*+(?:\\\\(?!\")[^\"\\\\]*+)*+\\\\\"";
    private static final String REST_OF_HEADER =
            "(?<=(?i:cookie\\s?[:=]\\s?|authorization\\s?[:=]\\s?|cookie[:=]|authorization[:=]))[^\\r\\n]++";

    /** What stands behind a name and its sign: a quoted value, a list, for a whole header line the rest of it, or one word. */
    private static final Pattern VALUE = Pattern.compile("\\s*(" + ESCAPED_QUOTES + "|" + QUOTES + "|" + APOSTROPHES
            + "|\\[[^\\]\\n]*+\\]|" + REST_OF_HEADER + "|[^\\s\"'&;,<>(){}\\[\\]]{2,})");

    private final List<Pattern> ownPatterns;
    private final SecretNames names;
    private final Pattern namedField;

    Masks(SecretNames names, List<String> secretWords, List<Pattern> ownPatterns) {
        this.names = names;
        this.ownPatterns = ownPatterns;
        String words = String.join("|", secretWords.stream().map(Pattern::quote).toList());
        namedField = Pattern.compile(
                "(<(?:input|meta)\\b(?=[^>]*\\bname\\s*=\\s*[\"']?[\\w.-]*(?:" + words
                        + ")[\"'\\s>])[^>]*?\\b(?:value|content)\\s*=\\s*)" + "(\"[^\"]*\"|'[^']*'|[^\\s>]+)",
                Pattern.CASE_INSENSITIVE);
    }

    /** Each search only where the text has what it looks for: most texts have one kind of secret, if any. */
    String in(String text) {
        String masked = text;
        if (masked.indexOf('<') >= 0) {
            masked = PASSWORD_FIELD.matcher(masked).replaceAll(Masks::quotedMask);
            masked = namedField.matcher(masked).replaceAll(Masks::quotedMask);
        }
        masked = named(masked);
        if (Glance.hasScheme(masked))
            masked = CREDENTIALS.matcher(masked).replaceAll("$1$2" + Matcher.quoteReplacement(MASK));
        if (masked.indexOf('@') >= 0 && masked.contains("://"))
            masked = URL_USER.matcher(masked).replaceAll("$1" + Matcher.quoteReplacement(MASK) + "@");
        if (Glance.hasLongNumber(masked)) masked = CARD.matcher(masked).replaceAll(Masks::cardMask);
        for (Pattern own : ownPatterns) masked = own.matcher(masked).replaceAll(Masks::ownMask);
        return masked;
    }

    /**
     * Masks what stands behind a secret name and {@code :}, {@code =} or {@code =>}. From sign to sign: looking for each of
     * the names at each character took ten times as long.
     */
    private String named(String text) {
        Matcher value = null;
        StringBuilder masked = null;
        int done = 0;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if ((c != ':' && c != '=') || !names.endsSecret(text, SecretNames.nameEnd(text, i))) continue;
            int from = c == '=' && i + 1 < text.length() && text.charAt(i + 1) == '>' ? i + 2 : i + 1;
            if (value == null) value = VALUE.matcher(text).useTransparentBounds(true);
            if (!value.region(from, text.length()).lookingAt()) continue;
            if (masked == null) masked = new StringBuilder(text.length());
            String quote = quote(text, value.start(1));
            masked.append(text, done, value.start(1)).append(quote).append(MASK).append(quote);
            done = value.end(1);
            i = done - 1;
        }
        return masked == null ? text : masked.append(text, done, text.length()).toString();
    }

    /** What the value that begins at {@code at} is quoted with; empty where with nothing. */
    private static String quote(CharSequence text, int at) {
        char first = text.charAt(at);
        if (first == '"' || first == '\'') return String.valueOf(first);
        return first == '\\' && at + 1 < text.length() && text.charAt(at + 1) == '"' ? "\\\"" : "";
    }

    /** Group 1 as it is, group 2 masked in its quotes. */
    private static String quotedMask(MatchResult match) {
        String quote = quote(match.group(2), 0);
        return Matcher.quoteReplacement(match.group(1) + quote + MASK + quote);
    }

    private static String cardMask(MatchResult match) {
        return Matcher.quoteReplacement(isCard(match.group()) ? MASK : match.group());
    }

    private static String ownMask(MatchResult match) {
        if (match.groupCount() == 0 || match.group(1) == null) return Matcher.quoteReplacement(MASK);
        String whole = match.group();
        int from = match.start(1) - match.start();
        return Matcher.quoteReplacement(whole.substring(0, from)
                + MASK
                + whole.substring(from + match.group(1).length()));
    }

    /** By the check digit of ISO/IEC 7812-1, Annex B (Luhn): a random number passes one time in ten. */
    private static boolean isCard(String text) {
        String digits = text.replaceAll("\\D", "");
        if (digits.length() < Redactor.CARD_SHORTEST || digits.length() > CARD_LONGEST) return false;
        int sum = 0;
        for (int i = 0; i < digits.length(); i++) {
            int digit = digits.charAt(digits.length() - 1 - i) - '0';
            if (i % 2 == 1) digit = digit * 2 > 9 ? digit * 2 - 9 : digit * 2;
            sum += digit;
        }
        return sum % 10 == 0;
    }
}
