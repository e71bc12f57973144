package dev.verbale.secrets;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import org.jspecify.annotations.Nullable;

/**
 * Secrets in XML and HTML: what an element holds whose name is secret, or that names a secret in an attribute, and what is
 * typed into a password field. Markup stays markup.
 */
final class Markup {

    private static final int LONGEST_UNQUOTED = 4_000;
    private static final int ASCII = 128;

    /** Their {@code name} or {@code key} says what they hold, as settings are written in XML. */
    private static final Set<String> NAMED_BY_ATTRIBUTE = Set.of(
            "entry",
            "property",
            "prop",
            "param",
            "parameter",
            "add",
            "string",
            "item",
            "setting",
            "constant",
            "variable",
            "textarea",
            "option",
            "attribute",
            "header",
            "field",
            "value",
            "init-param",
            "env-entry",
            "credential");

    private final SecretNames names;
    /** Null until something is looked for, which in nearly all texts nothing is. */
    private @Nullable Closings closings;

    /** Up to here all texts of elements were masked. */
    private int masked;

    private final JsonTexts json = new JsonTexts();
    private boolean isDocument;

    private final Stops stops;

    Markup(SecretNames names, Stops stops) {
        this.names = names;
        this.stops = stops;
    }

    /** Attributes that may say what a field is called. */
    private static final Set<String> NAMING = Set.of("name", "key", "id", "http-equiv", "autocomplete");

    /** Attributes that hold what is in a field. */
    private static final Set<String> HOLDING = Set.of("value", "content");

    /** Attributes that say something about a field, whatever they are called: {@code <label for=password>} holds nothing. */
    private static final Set<String> REVEALING =
            Set.of("for", "class", "id", "name", "type", "placeholder", "autocomplete", "key");

    /**
     * An attribute.
     *
     * @param nameFrom where its name begins, without its prefix
     * @param from where its value begins, without its quote
     */
    private record Attribute(int nameFrom, int nameTo, int from, int to, String quote) {
        String name(String text) {
            return text.substring(nameFrom, nameTo).toLowerCase(Locale.ROOT);
        }
    }

    /**
     * A tag that opens.
     *
     * @param name without its prefix
     * @param whole with its prefix
     * @param namesSecret whether one of its attributes names a secret, or it is a password's field
     * @param end behind its last character
     */
    private record Tag(
            String name, String whole, List<Attribute> attributes, boolean namesSecret, int end, boolean closed) {}

    /** Looks at the {@code <} at {@code at}. */
    void findAt(String text, int at, Found found) {
        if (isEnd(text, at)) {
            behindLabel(text, at, found);
            return;
        }
        Tag tag = tag(text, at);
        if (tag == null) return;
        for (Attribute one : tag.attributes()) {
            String name = one.name(text);
            boolean holds = tag.namesSecret() && HOLDING.contains(name);
            if (!holds && (REVEALING.contains(name) || !isSecret(text, name, one))) continue;
            if (!Prose.isNoValue(text, one.from(), one.to())) mask(one, found);
        }
        boolean holds = names.kind(tag.name()) == SecretNames.Kind.SECRET
                || (tag.namesSecret() && NAMED_BY_ATTRIBUTE.contains(tag.name().toLowerCase(Locale.ROOT)));
        if (holds && !tag.closed()) content(text, tag, found);
    }

    /** Whether an end tag begins at {@code at}. */
    static boolean isEnd(String text, int at) {
        return at + 1 < text.length() && text.charAt(at + 1) == '/';
    }

    private static final String ESCAPED_END = "&gt;";

    /** Looks at the {@code &} at {@code at}: an element whose brackets are escaped, as a page shows one. */
    void escapedAt(String text, int at, Found found) {
        if (!text.startsWith("&lt;", at)) return;
        int end = at + 4;
        while (end < text.length() && Chars.isOfName(text.charAt(end))) end++;
        if (end == at + 4 || !text.startsWith(ESCAPED_END, end) || !names.isSecret(text, at + 4, end)) return;
        int from = end + ESCAPED_END.length();
        int to = from;
        while (to < text.length() && to - from < LONGEST_UNQUOTED && !text.startsWith("&lt;", to)) to++;
        if (text.startsWith("&lt;/", to)) masked(text, from, to, found);
    }

    private static final LatePattern TO_NEXT = new LatePattern("</[\\w:]+>(?:\\s*</?[A-Za-z][^<>]{0,200}>)*\\s*");

    /** {@code <td>Password</td><td>x</td>}: the text of an element names that of the next one. */
    private void behindLabel(String text, int at, Found found) {
        int end = at;
        while (end > 0 && (Chars.isSpace(text.charAt(end - 1)) || text.charAt(end - 1) == ':')) end--;
        if (!names.endsAny(text, end)) return;
        SecretNames.Kind kind = names.kind(text, end);
        if (kind == SecretNames.Kind.ORDINARY) return;
        int from = text.lastIndexOf('>', end);
        if (from < 0 || end - from > 40) return;
        Matcher next = TO_NEXT.matcher(text).region(at, Math.min(text.length(), at + 400));
        if (!next.lookingAt()) return;
        int value = next.end();
        int to = value;
        while (to < text.length() && "<\"\n".indexOf(text.charAt(to)) < 0) to++;
        to = Chars.beforeQuote(text, value, to);
        boolean isPropertyList = text.startsWith("</key>", at);
        while (to > value && Chars.isSpace(text.charAt(to - 1))) to--;
        if (to <= value || Prose.isNoValue(text, value, to)) return;
        if (isPropertyList || Evidence.looksSecret(text, value, to)) found.add(value, to, Mask.TEXT);
    }

    private boolean isSecret(String text, String name, Attribute one) {
        SecretNames.Kind kind = names.kind(name);
        return kind == SecretNames.Kind.SECRET
                || kind == SecretNames.Kind.DOUBTFUL && Evidence.looksSecret(text, one.from(), one.to());
    }

    private boolean namesSecret(String text, Attribute one) {
        if (isType(text, one.nameFrom(), one.nameTo())) return isPassword(text, one.from());
        return names.endsSecret(text, one.to()) && NAMING.contains(one.name(text));
    }

    private static void mask(Attribute one, Found found) {
        found.add(one.from(), one.to(), one.quote().isEmpty() ? "\"" + Mask.TEXT + "\"" : Mask.TEXT);
    }

    /** The texts in there, up to its end tag; the tags in there stay. */
    private void content(String text, Tag tag, Found found) {
        String closing = "</" + tag.whole();
        int end = closed(text, closing, tag.end());
        if (end > json.end(text, tag.end())) return;
        boolean open = end < 0;
        boolean first = !open || closings().unclosed.add(closing);
        if (open && !isDocument) return; // a word in pointed brackets, as in: usage: log-in <password>
        // Where it does not end, the first text in it is what it holds; looking through all the rest for each would
        // never end.
        if (!first) end = firstTextEnd(text, tag.end());
        else if (open) end = text.length();
        int from = Math.max(tag.end(), masked); // what is in one of several, one in the other, is masked once
        masked = Math.max(masked, end);
        for (int i = from; i < end; ) {
            if (text.startsWith("<![CDATA[", i)) {
                int to = text.indexOf("]]>", i);
                if (to < 0) found.addOpen(i + 9, text.length(), Mask.TEXT, Rest.before("]]>"));
                else masked(text, i + 9, to, found);
                i = to < 0 ? end : to + 3;
            } else if (text.charAt(i) == '<') {
                int to = text.indexOf('>', i);
                i = to < 0 ? end : to + 1;
            } else {
                int to = text.indexOf('<', i);
                if (to < 0 || to > end) to = end;
                if (open && to == text.length() && !text.substring(i, to).isBlank())
                    found.addOpen(Chars.skipSpaces(text, i), to, Mask.TEXT, Rest.before("<"));
                else masked(text, i, to, found);
                i = to;
            }
        }
    }

    /** Where it is closed; -1 for nowhere. */
    private int closed(String text, String closing, int from) {
        Closings known = closings();
        if (known.unclosed.contains(closing)) return -1;
        Integer before = known.closed.get(closing);
        if (before != null && before >= from) return before;
        int at = text.indexOf(closing, from);
        if (at >= 0) known.closed.put(closing, at);
        return at;
    }

    private Closings closings() {
        Closings known = closings;
        if (known == null) {
            known = new Closings();
            closings = known;
        }
        return known;
    }

    /** What was looked for in this piece of the text. */
    private static final class Closings {
        final Set<String> unclosed = new HashSet<>(2);
        /** Where it is closed, and will be for all that is inside it. */
        final Map<String, Integer> closed = new HashMap<>(2);
    }

    private static int firstTextEnd(String text, int from) {
        int end = text.indexOf('<', Chars.skipSpaces(text, from) + 1);
        return end < 0 ? text.length() : end;
    }

    /**
     * Another piece of the text: what does not end in the one before may end in this.
     *
     * @param from where it goes on; 0 for the first one, which tells whether the whole is a document
     */
    void begin(String text, int from) {
        closings = null;
        masked = 0;
        json.begin(text, from);
        if (from > 0) return;
        int first =
                Chars.skipSpaces(text, text.startsWith("\uFEFF") ? 1 : text.startsWith("\u00EF\u00BB\u00BF") ? 3 : 0);
        isDocument = first < text.length() && text.charAt(first) == '<';
    }

    private static void masked(String text, int from, int to, Found found) {
        int start = Chars.skipSpaces(text, from);
        int end = to;
        while (end > start && Chars.isSpace(text.charAt(end - 1))) end--;
        if (end > start && !Prose.isNoValue(text, start, end)) found.add(start, end, Mask.TEXT);
    }

    private static boolean isType(String text, int from, int to) {
        return to - from == 4 && (text.charAt(from) | 0x20) == 't' && text.regionMatches(true, from, "type", 0, 4);
    }

    private static boolean isPassword(String text, int from) {
        return text.regionMatches(true, from, "password", 0, 8);
    }

    /**
     * The tag that opens at {@code at}, its attributes read with their quotes: one may hold a {@code >}. Null where there is none, or
     * nothing in it is called as secrets are: nearly all of a page's are such, and are read without making anything of them.
     */
    private @Nullable Tag tag(String text, int at) {
        int end = at + 1;
        while (end < text.length() && (Chars.isOfName(text.charAt(end)) || text.charAt(end) == ':')) end++;
        if (end == at + 1 || end == text.length() || !Chars.isLetter(text.charAt(at + 1))) return null;
        int local = local(text, at + 1, end);
        boolean isNamed = names.isSecret(text, local, end);
        if (!isNamed && attributes(text, end, null) != SECRET) return null;
        List<Attribute> attributes = new ArrayList<>(4);
        int behind = attributes(text, end, attributes);
        if (behind == NONE) return null;
        boolean secret = false;
        for (Attribute one : attributes) secret |= namesSecret(text, one);
        return new Tag(
                text.substring(local, end),
                text.substring(at + 1, end),
                attributes,
                secret,
                behind,
                text.charAt(behind - 2) == '/');
    }

    /**
     * Behind the tag that opens at {@code at}, where it has nothing but what nearly all have: words and numbers of which none is a
     * secret's name, or says that one follows. {@code at} for one that is to be read.
     */
    int behindQuiet(String text, int at) {
        boolean isInWord = false;
        int digits = 0;
        int quotes = 0;
        int furthest = Math.min(text.length(), at + LONGEST_UNQUOTED);
        for (int i = at + 1; i < furthest; i++) {
            char c = text.charAt(i);
            if (Chars.isLetter(c)) {
                if (c >= ASCII || (c == 'J' || c == 'I') && KeyShapes.mayBeginBefore(text, i)) return at;
                isInWord = true;
                continue;
            }
            if (isInWord && (names.endsAnyOrNaming(text, i) || c == ' ' && !stops.isOrdinaryWord(text, i))) return at;
            isInWord = false;
            if (c == '"') quotes++;
            else if (c == '>') return (quotes & 1) == 0 ? i + 1 : at;
            else if (Chars.isDigit(c)) {
                if (++digits >= Cards.SHORTEST - 1) return at;
            } else if (c != ' ' && c != '=' && c != '/') return at;
        }
        return at;
    }

    private static final int NONE = -1;
    private static final int SECRET = -2;

    /**
     * Goes through the attributes from {@code from} on.
     *
     * @param into where they are kept; null to know only whether there is a secret one
     * @return behind the tag; {@link #NONE} where it has no end, {@link #SECRET} where that was asked and is so
     */
    private int attributes(String text, int from, @Nullable List<Attribute> into) {
        boolean secret = false;
        int i = from;
        int unquoted = 0; // of what is no tag nobody reads on to the end of the text
        while (true) {
            i = Chars.skipSpaces(text, i);
            if (i >= text.length() || unquoted > LONGEST_UNQUOTED) return NONE;
            char c = text.charAt(i);
            if (c == '>') return secret ? SECRET : i + 1;
            if (c == '<') return NONE;
            if (c == '/' || c == '"' || c == '\'' || c == '=') {
                i++;
                unquoted++;
                continue;
            }
            int name = i;
            while (i < text.length() && !Chars.isBehindAttribute(text.charAt(i))) i++;
            int nameTo = i;
            unquoted += nameTo - name + 1;
            int sign = Chars.skipSpaces(text, i);
            if (sign >= text.length()) return NONE;
            if (text.charAt(sign) != '=') continue;
            i = Chars.skipSpaces(text, sign + 1);
            if (i >= text.length()) return NONE;
            char mark = text.charAt(i);
            String quote = mark == '"' ? "\"" : mark == '\'' ? "'" : mark == '\\' ? Quotes.at(text, i) : "";
            boolean isQuoted = !quote.isEmpty();
            int value = isQuoted ? i + quote.length() : i;
            int to = !isQuoted
                    ? unquotedEnd(text, value)
                    : quote.length() == 1 ? text.indexOf(mark, value) : text.indexOf(quote, value);
            if (to < 0) return NONE;
            unquoted += isQuoted ? 0 : to - value;
            i = isQuoted ? to + quote.length() : to;
            int local = local(text, name, nameTo);
            if (into != null) into.add(new Attribute(local, nameTo, value, to, isQuoted ? quote : ""));
            else secret |= mayMatter(text, local, nameTo, value, to);
        }
    }

    /** Whether an attribute may hold a secret, or say that another one does. */
    private boolean mayMatter(String text, int name, int nameTo, int from, int to) {
        return names.isSecret(text, name, nameTo)
                || names.endsSecret(text, to)
                || isType(text, name, nameTo) && isPassword(text, from);
    }

    private static int unquotedEnd(String text, int at) {
        int to = at;
        while (to < text.length() && !Chars.isSpace(text.charAt(to)) && ">\"<".indexOf(text.charAt(to)) < 0) to++;
        return Chars.beforeQuote(text, at, to);
    }

    /** Where a name begins without its prefix. */
    private static int local(String text, int from, int to) {
        int i = to;
        while (i > from && text.charAt(i - 1) != ':') i--;
        return i;
    }
}
