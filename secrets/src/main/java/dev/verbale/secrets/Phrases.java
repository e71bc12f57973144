package dev.verbale.secrets;

import java.util.List;
import java.util.regex.Matcher;
import java.util.stream.Stream;

/**
 * Secrets that stand behind a word and a blank: in sentences, in SQL, in protocols of lines, in properties that have a blank for a
 * sign.
 */
final class Phrases {

    private static final int FURTHEST = 200;
    private static final int LONGEST_VALUE = 10_000;

    /** What is before a literal that is one, with the last letters of each. */
    private static final List<String> BEFORE_LITERAL =
            List.of("identified by", "securestring", "password", "passphrase");

    private static final LatePattern LINE_OF_PROTOCOL = new LatePattern(
            "(?:PASS|AUTH PLAIN|AUTH LOGIN|AUTH|LOGIN \\S+)[ \\t]+([^\\s\"'\\\\]+)[ \\t]*(?=[\\r\\n]|$)");

    static final List<String> WORDS = List.of(
            " is", "was", " to", "into", " in", "for", "values", " by", "securestring", "pass", "auth", "login");

    private static final Endings TRIGGERS =
            new Endings(Stream.concat(WORDS.stream(), Siblings.WORDS.stream()).toList());

    private final SecretNames names;

    /** Where the last secret name ends that a blank stands behind; 0 for nowhere. */
    private int lastName;

    private final Siblings siblings;

    Phrases(SecretNames names) {
        this.names = names;
        siblings = new Siblings(names);
    }

    /** Looks at the blank at {@code at}, behind a letter. */
    void behindWord(String text, int at, Found found) {
        if (names.kind(text, at) == SecretNames.Kind.SECRET) {
            lastName = at;
            named(text, at, found);
        }
        if (!TRIGGERS.isAnyBefore(text, at) || found.end() > at) return;
        if (endsWith(text, at, "is") || endsWith(text, at, "was") || endsWith(text, at, "to")) says(text, at, found);
        else if (endsWith(text, at, "into") || endsWith(text, at, "in") || endsWith(text, at, "for"))
            typed(text, at, found);
        else if (endsWith(text, at, "values")) values(text, at, found);
        else if (endsWith(text, at, "by") || endsWith(text, at, "securestring") || Siblings.isNaming(text, at))
            named(text, at, found);
        else if (at > 3 && text.startsWith("PASS", at - 4)) protocol(text, at - 4, found);
        else if (at > 3 && text.startsWith("AUTH", at - 4)) protocol(text, at - 4, found);
        else if (at > 4 && text.startsWith("LOGIN", at - 5)) protocol(text, at - 5, found);
    }

    /** Whether a secret name stands in the line not far before {@code at}, with words behind it. */
    boolean hasNameBefore(int at) {
        return at - lastName < FURTHEST && lastName > 0;
    }

    /** Another text, or a piece of one. */
    void begin() {
        lastName = 0;
    }

    private static boolean endsWith(String text, int end, String word) {
        int from = end - word.length();
        return from > 0
                && text.regionMatches(true, from, word, 0, word.length())
                && !Chars.isLetter(text.charAt(from - 1));
    }

    /** <i>The password is x</i>, <i>was x</i>, <i>set to x</i>. */
    private void says(String text, int at, Found found) {
        int end = at;
        for (int words = 0; words < 3; words++) {
            while (end > 0 && Chars.isLetter(text.charAt(end - 1))) end--;
            while (end > 0 && (Chars.isBlank(text.charAt(end - 1)) || "\"'".indexOf(text.charAt(end - 1)) >= 0)) end--;
            if (end <= 0) return;
            SecretNames.Kind kind = names.kind(text, end);
            if (kind == SecretNames.Kind.ORDINARY) continue;
            int from = Chars.skipBlanks(text, at);
            String quote = Quotes.at(text, from);
            from += quote.length();
            int to = quote.isEmpty() ? wordEnd(text, from) : Quotes.closeNear(text, from, quote, LONGEST_VALUE);
            if (to > from && Evidence.looksSecret(text, from, to)) found.add(from, to, Mask.TEXT);
            return;
        }
    }

    private static int wordEnd(String text, int from) {
        int to = from;
        while (to < text.length() && Chars.isOfValue(text.charAt(to))) to++;
        to = Chars.beforeQuote(text, from, to);
        while (to > from && ".,;".indexOf(text.charAt(to - 1)) >= 0) to--;
        return to;
    }

    /** <i>enter "x" into the "Password" field</i>: the value stands before its name. */
    private void typed(String text, int at, Found found) {
        int from = Chars.skipBlanks(text, at);
        if (text.startsWith("the ", from)) from += 4;
        String quote = Quotes.at(text, from);
        from += quote.length();
        int to = from;
        while (to < text.length()
                && to - from < 40
                && (Chars.isOfName(text.charAt(to)) || text.charAt(to) == ' ')
                && names.kind(text, to) == SecretNames.Kind.ORDINARY) to++;
        if (names.kind(text, to) == SecretNames.Kind.ORDINARY) return;
        int word = at;
        while (word > 0 && Chars.isLetter(text.charAt(word - 1))) word--;
        int end = word;
        while (end > 0 && Chars.isBlank(text.charAt(end - 1))) end--;
        String around = Quotes.before(text, end);
        if (around.isEmpty()) return;
        int close = end - around.length();
        int open = close - 1;
        while (open > 0 && close - open <= FURTHEST && !text.startsWith(around, open)) open--;
        if (open < found.end() || close - open > FURTHEST) return;
        int value = open + around.length();
        if (value < close && Evidence.looksSecret(text, value, close)) found.add(value, close, Mask.TEXT);
    }

    /** A literal behind a name, as in SQL; or the rest of a line that begins with the name of a property. */
    private void named(String text, int at, Found found) {
        int from = Chars.skipBlanks(text, at);
        if (from >= text.length()) return;
        String quote = Quotes.at(text, from);
        if (quote.equals("'") || quote.equals("\"")) {
            literal(text, at, from, quote, found);
            return;
        }
        SecretNames.Kind kind = names.kind(text, at);
        if (kind != SecretNames.Kind.SECRET) return;
        int name = at;
        boolean isProperty = false;
        while (name > 0 && Chars.isOfName(text.charAt(name - 1))) isProperty |= text.charAt(--name) == '.';
        boolean begins = isProperty ? Chars.isTextStart(text, name) : Chars.isLineStart(text, name);
        if (!begins && !isBehindLogin(text, name)) return;
        int to = from;
        while (to < text.length() && Chars.isOfValue(text.charAt(to))) to++;
        to = Chars.beforeQuote(text, from, to);
        int end = Chars.skipBlanks(text, to);
        if (end < text.length() && text.charAt(end) != '\n' && text.charAt(end) != '\r') return;
        char first = text.charAt(from);
        if (to == from
                || first == ':'
                || first == '='
                || Prose.saysSomething(text, from, to)
                || Prose.isNoValue(text, from, to)) return;
        if (isProperty || Evidence.looksSecret(text, from, to)) found.add(from, to, Mask.TEXT);
    }

    /** {@code machine h login ada password x}, as curl and others have it in a file. */
    private static boolean isBehindLogin(String text, int at) {
        int from = Math.max(0, at - 80);
        return BEHIND_LOGIN.matcher(text).region(from, at).find();
    }

    private static final LatePattern BEHIND_LOGIN = new LatePattern("\\b(?:login|user|account)\\s+\\S+\\s+\\z");

    private void literal(String text, int at, int from, String quote, Found found) {
        if (siblings.literal(text, at, from, quote, found)) return;
        boolean isKnown = false;
        for (String before : BEFORE_LITERAL)
            isKnown |= endsWith(text, at, before) || at == before.length() && endsWith(" " + text, at + 1, before);
        if (!isKnown && names.kind(text, at) != SecretNames.Kind.SECRET) return;
        int value = from + 1;
        int to = Quotes.closeNear(text, value, quote, LONGEST_VALUE);
        if (to <= value || Prose.isNoValue(text, value, to)) return;
        boolean isStatement = Character.isUpperCase(text.charAt(at - 1))
                || endsWith(text, at, "by")
                || endsWith(text, at, "securestring");
        if (isStatement ? text.substring(value, to).indexOf(' ') < 0 : Evidence.looksSecret(text, value, to))
            found.add(value, to, Mask.TEXT);
    }

    /** A line of a protocol, such as {@code PASS x}. */
    private static void protocol(String text, int from, Found found) {
        boolean tagged = text.startsWith("LOGIN", from); // IMAP's lines have a tag before them
        boolean begins = Chars.isTextStart(text, from) || text.startsWith("> ", from - 2);
        if (!tagged && !begins) return;
        Matcher line = LINE_OF_PROTOCOL.matcher(text).region(from, Math.min(text.length(), from + LONGEST_VALUE));
        if (line.lookingAt() && Evidence.looksSecret(text, line.start(1), line.end(1)))
            found.add(line.start(1), line.end(1), Mask.TEXT);
    }

    /** {@code insert into t (name, password) values ('ada', 'x')}. */
    private void values(String text, int at, Found found) {
        int close = at - "values".length();
        while (close > 0 && Chars.isSpace(text.charAt(close - 1))) close--;
        if (close == 0 || text.charAt(close - 1) != ')') return;
        int open = close - 1;
        while (open > 0 && close - open < 2_000 && text.charAt(open) != '(') open--;
        if (text.charAt(open) != '(') return;
        String[] all = text.substring(open + 1, close - 1).split(",");
        int row = Chars.skipSpaces(text, at);
        while (row < text.length() && text.charAt(row) == '(') {
            int i = row + 1;
            for (int column = 0; column < all.length && i < text.length(); column++) {
                i = Chars.skipSpaces(text, i);
                String quote = Quotes.at(text, i);
                int value = i + quote.length();
                int to = quote.isEmpty() ? value : Quotes.closeNear(text, value, quote, LONGEST_VALUE);
                if (to < 0) return;
                while (quote.isEmpty() && to < text.length() && ",)".indexOf(text.charAt(to)) < 0) to++;
                String name = all[column].strip().replaceAll("[`\"\\[\\]]", "");
                boolean isSecret = names.isSecret(name) && !quote.isEmpty();
                if (isSecret && to > value && !Prose.isNoValue(text, value, to)) found.add(value, to, Mask.TEXT);
                i = to + quote.length();
                while (i < text.length() && ",)".indexOf(text.charAt(i)) < 0) i++;
                if (i < text.length() && text.charAt(i) == ')') break;
                i++;
            }
            row = Chars.skipSpaces(text, i + 1);
            if (row < text.length() && text.charAt(row) == ',') row = Chars.skipSpaces(text, row + 1);
            else return;
        }
    }
}
