package dev.verbale.secrets;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Secrets in XML and HTML: what an element holds whose name is secret, or that names a secret in an attribute, and what is
 * typed into a password field. Markup stays markup.
 */
final class Markup {

    private static final int LONGEST_UNQUOTED = 4_000;

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
    private final Set<String> unclosed = new HashSet<>();
    /** Where what was looked for is closed, and will be for all that is inside it. */
    private final Map<String, Integer> closings = new HashMap<>();

    /** Up to here all texts of elements were masked. */
    private int masked;

    private final JsonTexts json = new JsonTexts();
    private boolean isDocument;

    Markup(SecretNames names) {
        this.names = names;
    }

    /** They may say what a field is called. */
    private static final Set<String> NAMING = Set.of("name", "key", "id", "http-equiv", "autocomplete");

    /** They hold what is in it. */
    private static final Set<String> HOLDING = Set.of("value", "content");

    /** They say something about it, whatever they are called: {@code <label for=password>} holds nothing. */
    private static final Set<String> REVEALING =
            Set.of("for", "class", "id", "name", "type", "placeholder", "autocomplete", "key");

    private record Attribute(String name, int from, int to, String quote) {}

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
        Tag tag = tag(text, at);
        if (tag == null) return;
        for (Attribute one : tag.attributes()) {
            String name = one.name().toLowerCase(Locale.ROOT);
            boolean holds = tag.namesSecret() && HOLDING.contains(name);
            if (!holds && (REVEALING.contains(name) || !names.isSecret(name))) continue;
            if (!Prose.isNoValue(text, one.from(), one.to())) mask(one, found);
        }
        boolean holds = names.isSecret(tag.name())
                || (tag.namesSecret() && NAMED_BY_ATTRIBUTE.contains(tag.name().toLowerCase(Locale.ROOT)));
        if (holds && !tag.closed()) content(text, tag, found);
    }

    private boolean namesSecret(String text, Attribute one) {
        if (one.name().equalsIgnoreCase("type")) return text.regionMatches(true, one.from(), "password", 0, 8);
        return names.endsSecret(text, one.to()) && NAMING.contains(one.name().toLowerCase(Locale.ROOT));
    }

    private static void mask(Attribute one, Found found) {
        found.add(one.from(), one.to(), one.quote().isEmpty() ? "\"" + Redactor.MASK + "\"" : Redactor.MASK);
    }

    /** The texts in there, up to its end tag; the tags in there stay. */
    private void content(String text, Tag tag, Found found) {
        String closing = "</" + tag.whole();
        int end = closed(text, closing, tag.end());
        if (end > json.end(text, tag.end())) return;
        boolean open = end < 0;
        boolean first = !open || unclosed.add(closing);
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
                if (to < 0) found.addOpen(i + 9, text.length(), Redactor.MASK, Rest.before("]]>"));
                else masked(text, i + 9, to, found);
                i = to < 0 ? end : to + 3;
            } else if (text.charAt(i) == '<') {
                int to = text.indexOf('>', i);
                i = to < 0 ? end : to + 1;
            } else {
                int to = text.indexOf('<', i);
                if (to < 0 || to > end) to = end;
                if (open && to == text.length() && !text.substring(i, to).isBlank())
                    found.addOpen(Chars.skipSpaces(text, i), to, Redactor.MASK, Rest.before("<"));
                else masked(text, i, to, found);
                i = to;
            }
        }
    }

    /** Where it is closed; -1 for nowhere. */
    private int closed(String text, String closing, int from) {
        if (unclosed.contains(closing)) return -1;
        Integer known = closings.get(closing);
        if (known != null && known >= from) return known;
        int at = text.indexOf(closing, from);
        if (at >= 0) closings.put(closing, at);
        return at;
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
        unclosed.clear();
        closings.clear();
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
        if (end > start && !Prose.isNoValue(text, start, end)) found.add(start, end, Redactor.MASK);
    }

    /** The tag that opens at {@code at}, its attributes read with their quotes: one may hold a {@code >}. */
    private @Nullable Tag tag(String text, int at) {
        int i = at + 1;
        while (i < text.length() && (Chars.isOfName(text.charAt(i)) || text.charAt(i) == ':')) i++;
        if (i == at + 1 || i == text.length() || !Chars.isLetter(text.charAt(at + 1))) return null;
        String whole = text.substring(at + 1, i);
        List<Attribute> attributes = new ArrayList<>(4);
        boolean secret = false;
        int unquoted = 0; // of what is no tag nobody reads on to the end of the text
        while (true) {
            i = Chars.skipSpaces(text, i);
            if (i >= text.length() || unquoted > LONGEST_UNQUOTED) return null;
            char c = text.charAt(i);
            if (c == '>') break;
            if (c == '<') return null;
            if (c == '/' || c == '"' || c == '\'' || c == '=') {
                i++;
                unquoted++;
                continue;
            }
            int from = i;
            while (i < text.length() && !Chars.isSpace(text.charAt(i)) && "=>/\"'<".indexOf(text.charAt(i)) < 0) i++;
            String name = text.substring(from, i);
            unquoted += name.length() + 1;
            int sign = Chars.skipSpaces(text, i);
            if (sign >= text.length()) return null;
            if (text.charAt(sign) != '=') continue;
            i = Chars.skipSpaces(text, sign + 1);
            if (i >= text.length()) return null;
            Attribute one = attribute(text, name, i);
            if (one == null) return null;
            unquoted += one.quote().isEmpty() ? one.to() - one.from() : 0;
            i = one.to() + one.quote().length();
            attributes.add(one);
            secret |= namesSecret(text, one);
        }
        return new Tag(local(whole), whole, attributes, secret, i + 1, text.charAt(i - 1) == '/');
    }

    private static @Nullable Attribute attribute(String text, String name, int at) {
        char quote = text.charAt(at);
        if (quote == '"' || quote == '\'') {
            int to = text.indexOf(quote, at + 1);
            return to < 0 ? null : new Attribute(local(name), at + 1, to, String.valueOf(quote));
        }
        int to = at;
        while (to < text.length() && !Chars.isSpace(text.charAt(to)) && ">\"<".indexOf(text.charAt(to)) < 0) to++;
        return new Attribute(local(name), at, Chars.beforeQuote(text, at, to), "");
    }

    private static String local(String name) {
        return name.substring(name.lastIndexOf(':') + 1);
    }
}
