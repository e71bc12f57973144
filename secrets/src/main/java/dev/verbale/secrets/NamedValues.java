package dev.verbale.secrets;

import java.util.Set;
import java.util.regex.Pattern;

/**
 * The value behind a secret name and a sign, in whatever notation: JSON, also as text inside JSON, YAML, properties, headers,
 * forms, query strings, the texts of objects, programs. Looked for from sign to sign: looking for each name at each character
 * took ten times as long.
 */
final class NamedValues {

    private static final int LONGEST_NAME = 100;
    private static final int LONGEST_SENTENCE = 300;

    /** Such a header's whole line is the value: cookies and credentials have several parts. */
    private static final LatePattern WHOLE_LINE = new LatePattern("(?i)(?:set-)?cookie|(?:proxy-)?authorization");

    private static final LatePattern NEXT_KEY = new LatePattern("\\s*[\\w.\\[\\]%-]{1,60}\\s?=(?!=).*", Pattern.DOTALL);
    private static final LatePattern CALL = new LatePattern("[A-Za-z_$][\\w$.]*\\(.*", Pattern.DOTALL);
    private static final LatePattern MEMBER = new LatePattern("[A-Za-z_$][\\w$]*(?:\\.[A-Za-z_$][\\w$]*)+;?");

    /** Of selectors (W3C, selectors-4), those that are in use. */
    private static final Set<String> PSEUDO_CLASSES = Set.of(
            "active",
            "checked",
            "default",
            "disabled",
            "empty",
            "enabled",
            "first-child",
            "focus",
            "focus-visible",
            "focus-within",
            "has",
            "hover",
            "invalid",
            "is",
            "last-child",
            "link",
            "not",
            "nth-child",
            "only-child",
            "optional",
            "placeholder-shown",
            "read-only",
            "required",
            "target",
            "valid",
            "visited",
            "where");

    private final SecretNames names;
    private final JsonLeaves leaves = new JsonLeaves();
    private final Brackets brackets = new Brackets();
    private final JsonTexts json = new JsonTexts();

    NamedValues(SecretNames names) {
        this.names = names;
    }

    /** Another text, or a piece of one; {@code from} is 0 for the first. */
    void begin(String text, int from) {
        json.begin(text, from);
        leaves.begin();
        brackets.begin();
    }

    /** Looks at the sign at {@code at}, which is {@code :} or {@code =}. */
    void findAt(String text, int at, Found found) {
        int nameEnd = nameEnd(text, at);
        if (nameEnd < 0 || !names.endsSecret(text, nameEnd)) return;
        int nameStart = nameEnd;
        while (nameStart > 0 && nameEnd - nameStart < LONGEST_NAME && Chars.isOfName(text.charAt(nameStart - 1)))
            nameStart--;
        value(text, at, new Name(text, nameStart, nameEnd, at), found);
    }

    /** Where the name before the sign at {@code at} ends: quotes, blanks and a bracket may stand in between. */
    private static int nameEnd(String text, int at) {
        int end = at;
        while (end > 0 && at - end < 24 && Chars.isBlank(text.charAt(end - 1))) end--;
        end -= Quotes.lengthBefore(text, end);
        if (end <= 0) return end;
        char last = text.charAt(end - 1);
        if (last == ']') end--;
        else if ((last == 'D' || last == 'd') && text.startsWith("%5", end - 3)) end -= 3;
        end -= Quotes.lengthBefore(text, end);
        return end;
    }

    /**
     * A name as it stands there.
     *
     * @param quote that it is in, as in JSON; empty for none
     * @param isKey whether it stands where keys do, and not in the middle of a sentence
     * @param sign where its sign is
     */
    private record Name(int start, int end, String quote, boolean isKey, int sign) {

        Name(String text, int start, int end, int sign) {
            this(start, end, quoted(text, start, end), isKey(text, start), sign);
        }

        private static String quoted(String text, int start, int end) {
            String before = Quotes.before(text, start);
            return !before.isEmpty() && text.startsWith(before, end) ? before : "";
        }

        private static boolean isKey(String text, int start) {
            int i = start;
            while (i > 0 && Chars.isBlank(text.charAt(i - 1))) i--;
            if (i == 0 || i == start) return true; // begins the text, or hangs on what is before, such as & or "
            char before = text.charAt(i - 1);
            return !Chars.isAlphanumeric(before) && ".,;:!?)'’".indexOf(before) < 0 || before == ',' || before == ';';
        }
    }

    private void value(String text, int sign, Name name, Found found) {
        char c = text.charAt(sign);
        int from = sign + 1;
        boolean arrow = c == '=' && text.startsWith(">", from);
        if (arrow) from++;
        boolean compares = c == '=' && !arrow && text.startsWith("=", from);
        if (compares) while (from < text.length() && text.charAt(from) == '=') from++;
        if (c == ':' && (text.startsWith(":", from) || (sign > 0 && text.charAt(sign - 1) == ':'))) return; // A::b
        if (c == '=' && sign > 0 && "!<>=".indexOf(text.charAt(sign - 1)) >= 0) return; // a comparison
        if (c == ':' && text.startsWith("=", from)) from++; // a := b
        int at = name.quote().isEmpty() ? Chars.skipBlanks(text, from) : Chars.skipSpaces(text, from);
        if (at == text.length()) return;
        String open = Quotes.at(text, at);
        if (!open.isEmpty()) quoted(text, name, at, open, found);
        else if (arrow || compares) return; // a function, or what it is compared with
        else if (!name.quote().isEmpty()) ofQuotedName(text, name, at, found);
        else bare(text, name, at, c, found);
    }

    private void quoted(String text, Name name, int at, String open, Found found) {
        // In "Password: " the quote behind the sign is the end of the text that the name stands in.
        if (name.quote().isEmpty() && Quotes.before(text, name.start()).equals(open)) return;
        if (Prose.speaksOf(text, name.start())) return;
        int from = at + open.length();
        int to = Quotes.close(text, from, open);
        int around = !open.equals("\"") ? json.end(text, from) : text.length();
        if (around < text.length() && (to < 0 || around < to)) to = Chars.beforeQuote(text, from, around);
        if (to < 0) {
            int end = open.equals("'") || open.equals("\"") && name.quote().isEmpty()
                    ? Chars.lineEnd(text, from)
                    : text.length();
            if (end < text.length()) found.add(from, end, Mask.TEXT);
            else found.addOpen(from, end, Mask.TEXT, Rest.ofQuoted(open));
        } else if (!Prose.isNoValue(text, from, to)) found.add(from, to, Mask.TEXT);
    }

    /** In JSON everything that is no text: numbers become one, and of lists and objects each text. */
    private void ofQuotedName(String text, Name name, int at, Found found) {
        char first = text.charAt(at);
        if (first == '{' || first == '[')
            leaves.mask(text, at, name.quote().equals("\"") ? text.length() : json.end(text, at), name.quote(), found);
        else {
            int to = at;
            while (to < text.length() && Chars.isOfValue(text.charAt(to)) && ",;".indexOf(text.charAt(to)) < 0) to++;
            if (to > at && !Prose.isNoValue(text, at, to)) found.add(at, to, name.quote() + Mask.TEXT + name.quote());
        }
    }

    private void bare(String text, Name name, int at, char sign, Found found) {
        if (isStyle(text, name, at, sign) || Prose.speaksOf(text, name.start())) return;
        boolean lineStart = Chars.isLineStart(text, name.start()) || text.startsWith("export ", name.start() - 7);
        char first = text.charAt(at);
        if (WHOLE_LINE.matcher(text).region(name.start(), name.end()).matches() && first != '{' && first != '[') {
            if (sign == ':' && Prose.isSentence(text, at, partEnd(text, at, at + LONGEST_SENTENCE))) return;
            int end = partEnd(text, at, text.length());
            if (end - at > 1 && !Prose.isNoValue(text, at, end)) added(text, at, end, Rest.ofLine(), found);
            return;
        }
        if (first == '{' || first == '[') {
            bracketed(text, at, found);
            return;
        }
        if (first == '|' && sign == ':' || first == '>' && sign == ':') {
            block(text, name, at, found);
            return;
        }
        int word = wordEnd(text, at);
        if (word - at < 2 && !Chars.isAlphanumeric(first)) return;
        if (Prose.isNoValue(text, at, word) && (sign == '=' || isLineEnd(text, word))) return;
        if (isCode(text, at, word)) return;
        boolean spaced = sign == ':' && at > name.sign() + 1;
        if (spaced) {
            if (!name.isKey() && Prose.isWord(text, at, word)) return;
            if (Prose.saysSomething(text, at, word) || Prose.isSentence(text, at, sentenceEnd(text, at))) return;
            if (Prose.isNoValue(text, at, word)) return;
        }
        int end = lineStart && name.isKey() ? restOfLine(text, at, Chars.lineEnd(text, at)) : word;
        added(text, at, end, lineStart ? Rest.ofLine() : Rest.ofWord(), found);
    }

    /** Of a line's value: a quote or a bracket closes what the line stands in. */
    private static int partEnd(String text, int at, int limit) {
        int end = at;
        while (end < Math.min(text.length(), limit) && "\"'}]\r\n".indexOf(text.charAt(end)) < 0) end++;
        return Chars.beforeQuote(text, at, end);
    }

    private static void added(String text, int from, int to, Rest rest, Found found) {
        if (to == text.length()) found.addOpen(from, to, Mask.TEXT, rest);
        else found.add(from, to, Mask.TEXT);
    }

    private static boolean isLineEnd(String text, int at) {
        return at >= text.length() || text.charAt(at) == '\n' || text.charAt(at) == '\r';
    }

    private static int sentenceEnd(String text, int at) {
        int limit = Math.min(text.length(), at + LONGEST_SENTENCE);
        int end = at;
        while (end < limit && "\"'<>(){}[]\r\n".indexOf(text.charAt(end)) < 0) end++;
        return end;
    }

    /** Whether it lies in the query of a URL; nothing in one is a blank. */
    private static boolean isInQuery(String text, int at) {
        for (int i = at - 1; i >= 0 && at - i < 2_000 && !Chars.isSpace(text.charAt(i)); i--)
            if (text.charAt(i) == '?') return true;
        return false;
    }

    /** Whether its line has a brace before it that may close behind it. */
    private static boolean isInBraces(String text, int at) {
        for (int i = at - 1; i >= 0 && at - i < 2_000 && text.charAt(i) != '\n'; i--)
            if (text.charAt(i) == '{') return true;
        return false;
    }

    /** {@code .token:hover}, as styles write it. */
    private static boolean isStyle(String text, Name name, int at, char sign) {
        if (sign != ':' || at != name.sign() + 1) return false;
        int i = at;
        while (i < text.length() && (Chars.isLetter(text.charAt(i)) || text.charAt(i) == '-')) i++;
        return PSEUDO_CLASSES.contains(text.substring(at, i));
    }

    /** A call, or a member of something that ends a statement: the name of a value and not the value. */
    private static boolean isCode(String text, int at, int word) {
        String rest = text.substring(at, Math.min(text.length(), at + 200));
        if (CALL.matcher(rest).matches()) return true;
        if (word == text.length() || text.charAt(word) != ';') return false;
        return MEMBER.matcher(text.substring(at, Math.min(word, at + 200))).matches();
    }

    /** Up to a blank, or to a separator that another key follows: what else is in there belongs to the value. */
    private static int wordEnd(String text, int at) {
        int end = at;
        int length = text.length();
        while (end < length && Chars.isOfValue(text.charAt(end))) {
            char c = text.charAt(end);
            if (end > at && c == '\\' && end + 1 < length && "\"'nrt".indexOf(text.charAt(end + 1)) >= 0) break;
            if ((c == '&' || c == ';' || c == ',') && separates(text, end)) break;
            if (c == '#' && end > at && isInQuery(text, at)) break;
            end++;
        }
        return Chars.beforeQuote(text, at, end);
    }

    private static boolean separates(String text, int at) {
        if (at + 1 >= text.length() || Chars.isSpace(text.charAt(at + 1))) return true;
        if (text.startsWith("&quot;", at) || text.startsWith("&lt;", at) || text.startsWith("&gt;", at)) return true;
        return NEXT_KEY.matcher(text)
                .region(at + 1, Math.min(text.length(), at + 80))
                .matches();
    }

    /** Of a line that begins with the key: all of it, up to where another key begins. */
    private static int restOfLine(String text, int at, int lineEnd) {
        int end = at;
        while (end < lineEnd) {
            char c = text.charAt(end);
            boolean separator = c == '&' || c == ';' || c == ',' || Chars.isBlank(c);
            if (separator
                    && NEXT_KEY.matcher(text)
                            .region(end + 1, Math.min(lineEnd, end + 80))
                            .matches()) break;
            if (c == '#' && end > at && (Chars.isBlank(text.charAt(end - 1)) || isInQuery(text, at)))
                break; // a remark, or the last part of a URL
            if (c == '\\' && end + 1 < lineEnd && "\"'n".indexOf(text.charAt(end + 1)) >= 0) break;
            if (c == '"' || c == '<' || c == '}' && isInBraces(text, at)) break;
            end++;
        }
        end = Chars.beforeQuote(text, at, end);
        while (end > at && Chars.isBlank(text.charAt(end - 1))) end--;
        while (end > at + 1 && (text.charAt(end - 1) == ';' || text.charAt(end - 1) == ',') && end == lineEnd) end--;
        return end;
    }

    /** A list or an object that closes in its line; others are looked into as they are. */
    private void bracketed(String text, int at, Found found) {
        int close = brackets.close(text, at);
        if (close > at + 1 && !Prose.isNoValue(text, at, close + 1)) found.add(at, close + 1, Mask.TEXT);
    }

    /** YAML's texts of several lines: those that are indented further than their key. */
    private static void block(String text, Name name, int at, Found found) {
        int from = at + 1;
        while (from < text.length() && from - at < 3 && "+-0123456789".indexOf(text.charAt(from)) >= 0) from++;
        from = Chars.skipBlanks(text, from);
        if (!isLineEnd(text, from)) return;
        int lineStart = Math.max(text.lastIndexOf('\n', name.start()), -1) + 1;
        int indent = Chars.skipBlanks(text, lineStart) - lineStart;
        int end = from;
        int first = -1;
        while (end < text.length()) {
            int start = text.startsWith("\r\n", end) ? end + 2 : end + 1;
            if (start >= text.length()) break;
            int content = Chars.skipBlanks(text, start);
            int lineEnd = Chars.lineEnd(text, start);
            if (content < lineEnd && content - start <= indent) break;
            if (first < 0 && content < lineEnd) first = content;
            end = lineEnd;
        }
        if (first > 0) added(text, first, end, Rest.ofLine(), found);
    }
}
