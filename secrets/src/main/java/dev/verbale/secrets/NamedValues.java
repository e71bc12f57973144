package dev.verbale.secrets;

import java.util.List;
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
    private static final LatePattern PLACEHOLDER =
            new LatePattern("(?:\\w+ )?<[\\w -]+>|enabled|disabled|required|included?");
    private static final LatePattern FLAGS =
            new LatePattern("[{\\[](?:\\s*[\\w-]+\\s*[:=]\\s*(?:true|false|null|none|\\d{1,4})\\s*,?)+\\s*[}\\]]");
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
    private final Siblings siblings;
    private final Phrases phrases;
    private boolean mayBeEscaped;

    NamedValues(SecretNames names, Phrases phrases) {
        this.names = names;
        this.phrases = phrases;
        siblings = new Siblings(names);
    }

    /** Another text, or a piece of one; {@code from} is 0 for the first. */
    void begin(String text, int from) {
        json.begin(text, from);
        mayBeEscaped = text.indexOf('\\') >= 0 && text.contains("\\u00") || text.indexOf('%') >= 0;
        leaves.begin();
        brackets.begin();
    }

    /** Whether no name before {@code at} is escaped, or said before it with words behind: then {@link Stops} tells what stands there. */
    boolean isPlain(int at) {
        return !mayBeEscaped && !phrases.hasNameBefore(at);
    }

    /** Looks at the sign at {@code at}: {@code :}, {@code =}, an arrow, or one of them percent-encoded. */
    void findAt(String text, int at, Found found) {
        int nameEnd = nameEnd(text, at);
        if (nameEnd <= 0) return;
        SecretNames.Kind kind = names.kind(text, nameEnd);
        int nameStart = nameEnd;
        if (kind == SecretNames.Kind.ORDINARY) {
            if (mayBeEscaped && isEscapedSecret(text, nameEnd)) kind = SecretNames.Kind.SECRET;
            else if (text.charAt(at) == '=' && declared(text, at, nameEnd, found) || isAsked(text, at, nameEnd, found))
                return;
            else {
                siblings.findAt(text, at, nameEnd, found);
                return;
            }
        }
        while (nameStart > 0 && nameEnd - nameStart < LONGEST_NAME && Chars.isOfName(text.charAt(nameStart - 1)))
            nameStart--;
        value(text, at, new Name(text, nameStart, nameEnd, at, kind), found);
    }

    /** Where the name before the sign at {@code at} ends: quotes, blanks, colours, end tags and a bracket may stand in between. */
    private static int nameEnd(String text, int at) {
        int end = beforeBlanks(text, at);
        if (end > 3 && text.charAt(end - 1) == '>') end = beforeEndTags(text, end);
        end -= Quotes.lengthBefore(text, end);
        if (end <= 0) return end;
        char last = text.charAt(end - 1);
        if (last == ']' || last == '?') end--;
        else if ((last == 'D' || last == 'd') && text.startsWith("%5", end - 3)) end -= 3;
        else if (last == ')') end = beforeRemark(text, end);
        end -= Quotes.lengthBefore(text, end);
        return end;
    }

    private static int beforeBlanks(String text, int at) {
        int end = at;
        while (end > 0 && at - end < 40) {
            int before = text.charAt(end - 1) == 'm' ? Chars.beforeColour(text, end) : end;
            if (before == end && Chars.isBlank(text.charAt(end - 1))) before--;
            if (before == end - 1 && before > 0 && Chars.isWideBlank(text, before - 1)) before--;
            if (before == end) break;
            end = before;
        }
        return end;
    }

    /** {@code <b>Password</b>:}. */
    private static int beforeEndTags(String text, int end) {
        int i = end;
        while (i > 3 && text.charAt(i - 1) == '>' && end - i < 60) {
            int open = text.lastIndexOf('<', i - 1);
            if (open < 1 || i - open > 20 || text.charAt(open + 1) != '/') break;
            i = beforeBlanks(text, open);
        }
        return i;
    }

    /** {@code Password (again):}. */
    private static int beforeRemark(String text, int end) {
        int open = text.lastIndexOf('(', end - 1);
        return open > 0 && end - open < 24 ? beforeBlanks(text, open) : end;
    }

    /** Whether the name in quotes that ends at {@code end}, or the name in a URL, is secret once its escapes are undone. */
    private boolean isEscapedSecret(String text, int end) {
        int from = end;
        boolean isEscaped = false;
        while (from > 0 && end - from < LONGEST_NAME && isOfEscapedName(text.charAt(from - 1))) {
            from--;
            isEscaped |= text.charAt(from) == '%' || text.charAt(from) == '\\';
        }
        if (!isEscaped) return false;
        Escapes plain = Escapes.none(text.substring(from, end)).undone();
        return plain != null && names.kind(plain.text()) != SecretNames.Kind.ORDINARY;
    }

    private static boolean isOfEscapedName(char c) {
        return Chars.isOfName(c) || c == '\\' || c == '%';
    }

    /** {@code password string = "x"}, as Go declares it: the name stands before its type. */
    private boolean declared(String text, int at, int typeEnd, Found found) {
        int type = typeEnd - TYPES.lengthBefore(text, typeEnd);
        if (type == typeEnd || type == 0 || !Chars.isBlank(text.charAt(type - 1))) return false;
        int end = beforeBlanks(text, type);
        if (end <= 0 || !names.endsSecret(text, end)) return false;
        value(text, at, new Name(text, end, end, at, SecretNames.Kind.SECRET), found);
        return true;
    }

    static final List<String> TYPE_WORDS = List.of("string", "str", "text", "varchar", "byte");

    private static final Endings TYPES = new Endings(TYPE_WORDS);

    /** {@code Enter password for ada: x}: the name stands in what is asked, and something of it behind the name. */
    private boolean isAsked(String text, int at, int end, Found found) {
        if (!phrases.hasNameBefore(at)) return false;
        if (at + 1 >= text.length() || !Chars.isBlank(text.charAt(at + 1))) return false;
        int line = Math.max(at - 60, found.end());
        for (String about : ABOUT) {
            int word = end;
            while (word > line && !text.regionMatches(true, word, about, 0, about.length())) word--;
            if (word <= line || !names.endsSecret(text, word)) continue;
            int from = Chars.skipBlanks(text, at + 1);
            from += Quotes.at(text, from).length();
            int to = wordEnd(text, from);
            if (!Evidence.looksSecret(text, from, to)) return false;
            found.add(from, to, Mask.TEXT);
            return true;
        }
        return false;
    }

    /** Whether a browser sends them (Fetch Standard). */
    private static final Set<String> FETCHED = Set.of("include", "omit", "same-origin");

    private static final List<String> ABOUT = List.of(" for ", " of ", " to ");

    /**
     * A name as it stands there.
     *
     * @param quote that it is in, as in JSON; empty for none
     * @param isKey whether it stands where keys do, and not in the middle of a sentence
     * @param sign where its sign is
     * @param isDoubtful whether what goes by it is secret only where it looks like that
     */
    private record Name(int start, int end, String quote, boolean isKey, int sign, boolean isDoubtful) {

        Name(String text, int start, int end, int sign, SecretNames.Kind kind) {
            this(start, end, quoted(text, start, end), isKey(text, start), sign, kind == SecretNames.Kind.DOUBTFUL);
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

    /** Looks at the bar at {@code at}: a row of two cells, the first of which names the second. */
    void inRow(String text, int at, Found found) {
        int nameEnd = beforeBlanks(text, at);
        if (nameEnd <= 0 || names.kind(text, nameEnd) == SecretNames.Kind.ORDINARY) return;
        int name = nameEnd;
        while (name > 0 && Chars.isOfName(text.charAt(name - 1))) name--;
        int before = beforeBlanks(text, name);
        if (before > 0 && text.charAt(before - 1) == '|') before = beforeBlanks(text, before - 1);
        if (!Chars.isTextStart(text, before)) return;
        int from = Chars.skipBlanks(text, at + 1);
        int to = from;
        while (to < text.length() && Chars.isOfValue(text.charAt(to)) && text.charAt(to) != '|') to++;
        to = Chars.beforeQuote(text, from, to);
        int end = Chars.skipBlanks(text, to);
        if (end < text.length() && text.charAt(end) == '|') end = Chars.skipBlanks(text, end + 1);
        if (isLineEnd(text, end) && Evidence.looksSecret(text, from, to)) found.add(from, to, Mask.TEXT);
    }

    private void value(String text, int sign, Name name, Found found) {
        char c = text.charAt(sign);
        if (c == '%') {
            encoded(text, name, Percent.behind(text, sign, "3A", "3D"), found);
            return;
        }
        int from = sign + 1;
        boolean arrow = (c == '=' || c == '-') && text.startsWith(">", from);
        if (arrow) from++;
        boolean compares = c == '=' && !arrow && text.startsWith("=", from);
        if (compares) while (from < text.length() && text.charAt(from) == '=') from++;
        boolean isDouble = c == ':' && text.startsWith(":", from);
        if (isDouble && from + 1 < text.length() && Chars.isBlank(text.charAt(from + 1))) from++; // LDIF, RFC 2849
        else if (isDouble || c == ':' && sign > 0 && text.charAt(sign - 1) == ':') return; // A::b
        if (c == '=' && sign > 0 && "!<>=".indexOf(text.charAt(sign - 1)) >= 0) return; // a comparison
        if (c == ':' && text.startsWith("=", from)) from++; // a := b
        int at = name.quote().isEmpty() ? Chars.skipBlanks(text, from) : Chars.skipSpaces(text, from);
        at = Openings.behind(text, at);
        if (at >= text.length()) return;
        String open = Quotes.at(text, at);
        if (!open.isEmpty()) quoted(text, name, at, open, found);
        else if (compares || arrow && c == '=') return; // a function, or what it is compared with
        else if (!name.quote().isEmpty()) ofQuotedName(text, name, at, found);
        else if (arrow || isLineEnd(text, at)) ofNextWord(text, name, at, c, found);
        else bare(text, name, at, c, found);
    }

    /** Behind {@code %3D} or {@code %3A}: up to what separates it from what follows. */
    private static void encoded(String text, Name name, int from, Found found) {
        String open = Quotes.at(text, from);
        int start = from + open.length();
        int end = start;
        while (end < text.length()) {
            char c = text.charAt(end);
            if (!Chars.isOfValue(c) || c == '&' || c == ';' || c == ',') break;
            if (open.isEmpty() && Percent.behind(text, end, "26", "2C", "7D", "5D", "22", "3B", "20", "0A", "0D") > end)
                break;
            if (!open.isEmpty() && text.startsWith(open, end)) break;
            end++;
        }
        end = Chars.beforeQuote(text, start, end);
        if (end == start || Prose.isNoValue(text, start, end)) return;
        if (name.isDoubtful() && !Evidence.looksSecret(text, start, end)) return;
        if (end == text.length()) found.addOpen(start, end, Mask.TEXT, Rest.ofWord());
        else found.add(start, end, Mask.TEXT);
    }

    /** Behind an arrow, or in the line below the name, where it is further in, or goes on behind a backslash. */
    private void ofNextWord(String text, Name name, int at, char sign, Found found) {
        int from = at;
        if (isLineEnd(text, at)) {
            int line = Chars.nextLine(text, at);
            from = Chars.skipBlanks(text, line);
            if (from == line || from >= text.length() || !Chars.isLineStart(text, name.start())) return;
        }
        int to = wordEnd(text, from);
        boolean isWhole = isLineEnd(text, Chars.skipBlanks(text, to));
        if (from > at && !isWhole || to < text.length() && text.charAt(to) == ':') return; // a list, or another key
        if (sign != '=' && !Evidence.looksSecret(text, from, to)) return;
        if (to > from && !isCode(text, from, to) && !Prose.isNoValue(text, from, to))
            added(text, from, to, Rest.ofWord(), found);
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
        } else if (isValue(text, name, from, to)) found.add(from, to, Mask.TEXT);
    }

    /** So many tokens, cookies, secrets. */
    private static boolean isCount(String text, Name name, int from, int to) {
        char last = text.charAt(name.end() - 1);
        if (last != 's' && last != 'S' || text.regionMatches(true, name.end() - 4, "pass", 0, 4)) return false;
        for (int i = from; i < to; i++) if (!Chars.isDigit(text.charAt(i))) return false;
        return true;
    }

    private static boolean isValue(String text, Name name, int from, int to) {
        if (Prose.isNoValue(text, from, to) || name.isDoubtful() && isCount(text, name, from, to)) return false;
        if (text.regionMatches(true, name.end() - 11, "credentials", 0, 11)
                && FETCHED.contains(text.substring(from, to))) return false;
        return name.isDoubtful()
                ? Evidence.looksSecret(text, from, to)
                : !Prose.isRemark(text, from, Math.min(to, from + LONGEST_SENTENCE));
    }

    /** In JSON everything that is no text: numbers become one, and of lists and objects each text. */
    private void ofQuotedName(String text, Name name, int at, Found found) {
        char first = text.charAt(at);
        if (first == '{' || first == '[') {
            leaves.mask(
                    text,
                    at,
                    name.quote().equals("\"") ? text.length() : json.end(text, at),
                    name.quote(),
                    name.isDoubtful(),
                    found);
        } else {
            int to = at;
            while (to < text.length() && Chars.isOfValue(text.charAt(to)) && ",;".indexOf(text.charAt(to)) < 0) to++;
            if (to > at && isValue(text, name, at, to)) found.add(at, to, name.quote() + Mask.TEXT + name.quote());
        }
    }

    private void bare(String text, Name name, int at, char sign, Found found) {
        if (isStyle(text, name, at, sign) || Prose.speaksOf(text, name.start())) return;
        boolean lineStart = Chars.isLineStart(text, name.start()) || text.startsWith("export ", name.start() - 7);
        char first = text.charAt(at);
        if (WHOLE_LINE.matcher(text).region(name.start(), name.end()).matches() && first != '{' && first != '[') {
            int near = WholeLine.end(text, name.start(), at, Math.min(text.length(), at + LONGEST_SENTENCE));
            if (sign == ':' && Prose.isSentence(text, at, near)) return;
            int end = Math.min(WholeLine.end(text, name.start(), at, text.length()), json.end(text, at));
            if (end - at < 60 && PLACEHOLDER.matcher(text).region(at, end).matches()) return;
            if (end - at > 1 && !Prose.isNoValue(text, at, end)) added(text, at, end, Rest.ofLine(), found);
            return;
        }
        if (first == '{' || first == '[') {
            if (!name.isDoubtful()) bracketed(text, at, found);
            return;
        }
        if (first == '|' && sign == ':' || first == '>' && sign == ':') {
            block(text, name, at, found);
            return;
        }
        int typed = Openings.behindType(text, at);
        if (typed > at) {
            String open = Quotes.at(text, typed);
            if (!open.isEmpty()) quoted(text, name, typed, open, found);
            return;
        }
        int word = wordEnd(text, at);
        if (name.isDoubtful()) {
            if (isCount(text, name, at, word)) return;
            if (Evidence.looksSecret(text, at, word) && !isCode(text, at, word))
                added(text, at, word, Rest.ofWord(), found);
            return;
        }
        if (word - at < 2 && !Chars.isAlphanumeric(first)) return;
        if (Prose.isNoValue(text, at, word) && (sign == '=' || isLineEnd(text, word))) return;
        if (isCode(text, at, word)) return;
        boolean spaced = sign == ':' && at > name.sign() + 1;
        if (spaced) {
            if (!name.isKey() && Prose.isWord(text, at, word)) return;
            if (Prose.saysSomething(text, at, word) || Prose.isSentence(text, at, sentenceEnd(text, at))) return;
            if (Prose.isNoValue(text, at, word) || Prose.isOwnName(text, name.start(), name.end(), at, word)) return;
            if (Prose.describes(text, at, word, sentenceEnd(text, at))) return;
        }
        if (isPath(text, name, at)) return;
        int end = lineStart && name.isKey() ? restOfLine(text, at, Chars.lineEnd(text, at)) : word;
        added(text, at, end, lineStart ? Rest.ofLine() : Rest.ofWord(), found);
    }

    private static void added(String text, int from, int to, Rest rest, Found found) {
        if (to == text.length()) found.addOpen(from, to, Mask.TEXT, rest);
        else found.add(from, to, Mask.TEXT);
    }

    /** A working directory goes by the name of a password. */
    private static boolean isPath(String text, Name name, int at) {
        return text.regionMatches(true, name.end() - 3, "pwd", 0, 3)
                && (text.charAt(at) == '/' || text.charAt(at) == '~' || text.startsWith(":\\", at + 1));
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
        if (close > at
                && close - at < 200
                && FLAGS.matcher(text).region(at, close + 1).matches()) return;
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
