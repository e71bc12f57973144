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

    private final List<Pattern> ownPatterns;
    private final Pattern named;
    private final Pattern namedField;

    Masks(List<String> secretWords, List<Pattern> ownPatterns) {
        this.ownPatterns = ownPatterns;
        String words = String.join("|", secretWords.stream().map(Pattern::quote).toList());
        // name, then : or = (or :: =>), then a quoted value, or for a whole header line the rest of it, or one word
        named = Pattern.compile(
                "((?:" + words + ")\\\\?[\"']?\\s*(?:=>|[:=])\\s*)" + "(" + ESCAPED_QUOTES + "|" + QUOTES + "|"
                        + APOSTROPHES + "|\\[[^\\]\\n]*+\\]|" + REST_OF_HEADER + "|[^\\s\"'&;,<>(){}\\[\\]]{2,})",
                Pattern.CASE_INSENSITIVE);
        namedField = Pattern.compile(
                "(<(?:input|meta)\\b(?=[^>]*\\bname\\s*=\\s*[\"']?[\\w.-]*(?:" + words
                        + ")[\"'\\s>])[^>]*?\\b(?:value|content)\\s*=\\s*)" + "(\"[^\"]*\"|'[^']*'|[^\\s>]+)",
                Pattern.CASE_INSENSITIVE);
    }

    String in(String text) {
        String masked = PASSWORD_FIELD.matcher(text).replaceAll(Masks::quotedMask);
        if (masked.indexOf('<') >= 0) masked = namedField.matcher(masked).replaceAll(Masks::quotedMask);
        masked = named.matcher(masked).replaceAll(Masks::quotedMask);
        masked = CREDENTIALS.matcher(masked).replaceAll("$1$2" + Matcher.quoteReplacement(MASK));
        masked = URL_USER.matcher(masked).replaceAll("$1" + Matcher.quoteReplacement(MASK) + "@");
        masked = CARD.matcher(masked).replaceAll(Masks::cardMask);
        for (Pattern own : ownPatterns) masked = own.matcher(masked).replaceAll(Masks::ownMask);
        return masked;
    }

    /** Group 1 as it is, group 2 masked in its quotes. */
    private static String quotedMask(MatchResult match) {
        String value = match.group(2);
        String quote = value.startsWith("\\\"") ? "\\\"" : value.matches("(?s)[\"'].*") ? value.substring(0, 1) : "";
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
