package dev.verbale.secrets;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Pairs in which one part names the other: {@code name: DB_PASSWORD} beside {@code value: x}, a part of a form, the data of a
 * secret of Kubernetes, a file of keys.
 */
final class Siblings {

    private static final int FURTHEST = 250;
    private static final int LONGEST_VALUE = 10_000;
    private static final int LONGEST_NAME = 60;

    static final List<String> WORDS = List.of(
            "name",
            "key",
            "field",
            "header",
            "parameter",
            "param",
            "property",
            "variable",
            "attribute",
            "env",
            "kind",
            "private-lines");

    private static final Endings NAMING = new Endings(WORDS);

    private static final LatePattern VALUE = new LatePattern(
            "(?<![\\w.])\\\\*[\"']?(?:value|rejectedValue|rejected value|val|default|defaultValue|initialValue|content|text|data|stringValue|plaintext)\\\\*[\"']?\\s*(?:[:=]\\s*|(?=\\[))",
            Pattern.CASE_INSENSITIVE);

    private static final LatePattern DATA = new LatePattern("(?m)^([ \\t]*)(?:data|stringData):[ \\t]*\\r?\\n");
    private static final LatePattern ENTRY = new LatePattern("([ \\t]+)[\\w.-]+:[ \\t]+(\\S+)[ \\t]*(?:\\r?\\n|\\z)");
    private static final LatePattern PASSWORDS_LINE =
            new LatePattern("(?m)[\\w.*-]{1,100}:(?:\\d{2,5}|\\*):[^:\\s]{1,100}:[^:\\s]{1,100}:(\\S{1,500})[ \\t]*$");
    private static final LatePattern BOT = new LatePattern("AA[\\w!-]{8,}");

    private final SecretNames names;

    Siblings(SecretNames names) {
        this.names = names;
    }

    /** Looks at the sign at {@code at}, before which a name ends at {@code nameEnd} that is no secret's. */
    void findAt(String text, int at, int nameEnd, Found found) {
        char c = text.charAt(at);
        if (c != ':' && c != '=') return;
        if (c == ':' && at + 1 < text.length()) {
            char next = text.charAt(at + 1);
            if (next == 'A' && isBot(text, at, found)) return;
            if ((Chars.isDigit(next) || next == '*') && isPasswordsLine(text, at, found)) return;
        }
        if (!isNaming(text, nameEnd)) return;
        if (endsWith(text, nameEnd, "kind")) ofKind(text, at, found);
        else if (endsWith(text, nameEnd, "Private-Lines")) keyLines(text, at, found);
        else named(text, at, nameEnd, found);
    }

    /** Whether the word that ends before {@code end} is one that names are said by. */
    static boolean isNaming(String text, int end) {
        return NAMING.isAnyBefore(text, end);
    }

    private static boolean endsWith(String text, int end, String word) {
        return end >= word.length() && text.startsWith(word, end - word.length());
    }

    private void named(String text, int at, int nameEnd, Found found) {
        int from = Chars.skipBlanks(text, at + 1);
        String quote = Quotes.at(text, from);
        from += quote.length();
        int to = from;
        while (to < text.length() && to - from < LONGEST_NAME && isOfName(text.charAt(to))) to++;
        if (to == from || !names.endsAny(text, to) || !quote.isEmpty() && !text.startsWith(quote, to)) return;
        SecretNames.Kind kind = names.kind(text, to);
        if (kind == SecretNames.Kind.ORDINARY) return;
        int behind = to + quote.length();
        if (text.startsWith("name", nameEnd - 4) && formPart(text, behind, found)) return;
        boolean isDoubtful = kind == SecretNames.Kind.DOUBTFUL;
        if (!valueBehind(text, behind, isDoubtful, found)) valueBefore(text, nameEnd, isDoubtful, found);
    }

    /** {@code field 'password': rejected value [x]}: a literal from {@code from} on, behind a word that ends at {@code wordEnd}. */
    boolean literal(String text, int wordEnd, int from, String quote, Found found) {
        if (NAMING.lengthBefore(text, wordEnd) == 0) return false;
        int to = Quotes.closeNear(text, from + quote.length(), quote, LONGEST_NAME);
        if (to < 0 || to - from > LONGEST_NAME) return false;
        SecretNames.Kind kind = names.kind(text.substring(from + quote.length(), to));
        return kind != SecretNames.Kind.ORDINARY
                && valueBehind(text, to + quote.length(), kind == SecretNames.Kind.DOUBTFUL, found);
    }

    private static boolean isOfName(char c) {
        return Chars.isOfName(c) || c == ' ' || c == '[' || c == ']' || c == '/' || c == ':';
    }

    private boolean valueBehind(String text, int from, boolean isDoubtful, Found found) {
        int limit = Math.min(text.length(), from + FURTHEST);
        int end = from;
        while (end < limit && text.charAt(end) != '}' && !text.startsWith("</", end) && !startsItem(text, end)) end++;
        Matcher value = VALUE.matcher(text).region(from, end);
        return value.find() && value(text, value.end(), isDoubtful, found);
    }

    private void valueBefore(String text, int nameEnd, boolean isDoubtful, Found found) {
        int from = nameEnd;
        while (from > found.end() && nameEnd - from < FURTHEST) {
            char c = text.charAt(from - 1);
            if (c == '{' || c == '}' || startsItem(text, from)) break;
            from--;
        }
        Matcher value = VALUE.matcher(text).region(from, nameEnd);
        int last = -1;
        while (value.find()) last = value.end();
        if (last > 0) value(text, last, isDoubtful, found);
    }

    /** Whether an item of a list in YAML begins at {@code at}. */
    private static boolean startsItem(String text, int at) {
        if (!text.startsWith("- ", at)) return false;
        return Chars.isLineStart(text, at);
    }

    private static boolean value(String text, int at, boolean isDoubtful, Found found) {
        int from = Openings.behind(text, at);
        String quote = Quotes.at(text, from);
        from += quote.length();
        boolean isBracketed = quote.isEmpty() && from < text.length() && text.charAt(from) == '[';
        if (isBracketed) from++;
        int to = quote.isEmpty() ? wordEnd(text, from) : Quotes.closeNear(text, from, quote, LONGEST_VALUE);
        if (to <= from || Prose.isNoValue(text, from, to) || Prose.saysSomething(text, from, to)) return false;
        if (isDoubtful && !Evidence.looksSecret(text, from, to)) return false;
        found.add(from, to, Mask.TEXT);
        return true;
    }

    private static int wordEnd(String text, int from) {
        int to = from;
        while (to < text.length() && Chars.isOfValue(text.charAt(to)) && text.charAt(to) != ',') to++;
        return Chars.beforeQuote(text, from, to);
    }

    /** A part of a form (RFC 7578): its name, its other headers, an empty line, and what it holds. */
    private static boolean formPart(String text, int behindName, Found found) {
        int form = behindName;
        while (form > 0 && behindName - form < LONGEST_NAME && !text.startsWith("form-data", form)) form--;
        if (!text.startsWith("form-data", form)) return false;
        int limit = Math.min(text.length(), behindName + FURTHEST);
        for (int i = behindName; i < limit; i++) {
            if (text.charAt(i) != '\n') continue;
            int next = i + 1;
            if (next < text.length() && Chars.isLetter(text.charAt(next)) && text.startsWith("ontent-", next + 1))
                continue;
            boolean isEmpty = next < text.length() && Chars.lineEnd(text, next) == next;
            if (!isEmpty) return false;
            partContent(text, Chars.nextLine(text, next), found);
            return true;
        }
        return false;
    }

    private static void partContent(String text, int from, Found found) {
        int border = from - 1;
        int limit = Math.min(text.length(), from + LONGEST_VALUE);
        while (border < limit && !text.startsWith("\n--", border)) border++;
        if (border == limit) { // of a part that is no end near, all that follows may belong to it
            if (from < text.length()) found.addOpen(from, text.length(), Mask.TEXT, Rest.before("\n--"));
            return;
        }
        int to = border;
        if (to > from && text.charAt(to - 1) == '\r') to--;
        if (to > from) found.add(from, to, Mask.TEXT);
    }

    private static void ofKind(String text, int at, Found found) {
        int from = Chars.skipBlanks(text, at + 1);
        if (!text.startsWith("Secret", from) || from + 6 < text.length() && text.charAt(from + 6) > ' ') return;
        Matcher data = DATA.matcher(text).region(from, Math.min(text.length(), from + 2 * FURTHEST));
        if (!data.find()) return;
        int indent = data.end(1) - data.start(1);
        int line = data.end();
        Matcher entry = ENTRY.matcher(text);
        while (entry.region(line, Math.min(text.length(), line + LONGEST_VALUE)).lookingAt()
                && entry.end(1) - entry.start(1) > indent) {
            if (entry.end(2) - entry.start(2) > 1) found.add(entry.start(2), entry.end(2), Mask.TEXT);
            line = entry.end();
        }
    }

    /** Of a PuTTY key file: so many lines. */
    private static void keyLines(String text, int at, Found found) {
        int line = Chars.lineEnd(text, at);
        if (line - at > 10) return;
        String count = text.substring(at + 1, line).strip();
        if (!count.matches("\\d{1,3}")) return;
        int from = Chars.nextLine(text, line);
        int to = from;
        for (int i = Integer.parseInt(count); i > 0 && to < text.length(); i--)
            to = Chars.lineEnd(text, i == Integer.parseInt(count) ? from : Chars.nextLine(text, to));
        if (to > from) found.add(from, to, Mask.TEXT);
    }

    /** {@code host:port:database:user:password}, as PostgreSQL's clients have it in a file. */
    private static boolean isPasswordsLine(String text, int at, Found found) {
        int from = at;
        while (from > 0 && at - from < 100 && isOfHost(text.charAt(from - 1))) from--;
        if (from > 0 && !Chars.isSpace(text.charAt(from - 1)) && text.charAt(from - 1) != '=') return false;
        Matcher line = PASSWORDS_LINE.matcher(text).region(from, Math.min(text.length(), from + 1_000));
        if (!line.lookingAt() || !Evidence.looksSecret(text, line.start(1), line.end(1))) return false;
        found.add(line.start(1), line.end(1), Mask.TEXT);
        return true;
    }

    private static boolean isOfHost(char c) {
        return Chars.isOfName(c) || c == '*';
    }

    /** The token of a bot: its number, a colon, and a key that always begins so. */
    private static boolean isBot(String text, int at, Found found) {
        int from = at;
        while (from > 0 && Chars.isDigit(text.charAt(from - 1))) from--;
        if (at - from < 8 || at - from > 11) return false;
        Matcher key = BOT.matcher(text).region(at + 1, text.length());
        if (!key.lookingAt()) return false;
        found.add(at + 1, key.end(), Mask.TEXT);
        return true;
    }
}
