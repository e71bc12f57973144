package dev.verbale.secrets;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Finds the secrets in a text, in one pass from sign to sign. For one text, or for one that comes in pieces, of which the next
 * begins with the last characters of the one before.
 */
final class Search {

    private final Stops stops;
    private final NamedValues named;
    private final Markup markup;
    private final Credentials credentials;
    private final Cards cards = new Cards();
    private final KeyShapes shapes = new KeyShapes();
    private final Tables tables;
    private final Arguments arguments;
    private final Phrases phrases;
    private int begun;
    private final List<Pattern> ownPatterns;

    Search(SecretNames names, Stops stops, List<Pattern> ownPatterns) {
        this.stops = stops;
        this.phrases = new Phrases(names);
        this.named = new NamedValues(names, phrases);
        this.markup = new Markup(names, stops);
        this.credentials = new Credentials(names);
        this.tables = new Tables(names);
        this.arguments = new Arguments(names);
        this.ownPatterns = ownPatterns;
    }

    /**
     * @param from where to look; what is before was looked at, and is there to be looked back at
     */
    Found in(String text, int from, KnownSecrets secrets) {
        List<int[]> fixed = fixed(text, secrets);
        var known = new Found();
        markup.begin(text, from);
        named.begin(text, from);
        cards.begin();
        phrases.begin();
        arguments.begin(text);
        shapes.begin(from);
        tables.begin();
        begun = from;
        findFrom(text, from, known);
        return fixed.isEmpty() ? known : merged(known, fixed, from);
    }

    /** Where known values stand, and what the suite's own patterns match. */
    private List<int[]> fixed(String text, KnownSecrets secrets) {
        if (secrets.isEmpty() && ownPatterns.isEmpty()) return List.of();
        List<int[]> fixed = new ArrayList<>();
        secrets.find(text, fixed);
        for (Pattern own : ownPatterns) {
            Matcher matcher = own.matcher(text);
            while (matcher.find()) {
                int group = matcher.groupCount() == 0 || matcher.group(1) == null ? 0 : 1;
                if (matcher.end(group) > matcher.start(group))
                    fixed.add(new int[] {matcher.start(group), matcher.end(group)});
            }
        }
        return fixed;
    }

    /**
     * A long text is searched in pieces that overlap: the next piece begins with {@code text} from {@code from} on. Tables are put back
     * to what they were {@code before} that, and told the lines up to {@code to} again, which the next piece has only in part.
     */
    void comeBack(Tables before, String text, int from, int to) {
        tables.comeBackTo(before);
        var nothing = new Found();
        int line = from == 0 || text.charAt(from - 1) == '\n' ? from : text.indexOf('\n', from) + 1;
        while (line >= 0 && line < to && (line > 0 || from == 0)) {
            tables.findAt(text, line, nothing);
            int next = text.indexOf('\n', line) + 1;
            if (next == 0) break;
            line = next;
        }
    }

    Tables tables() {
        return tables.copy();
    }

    private void findFrom(String text, int from, Found found) {
        int length = text.length();
        boolean multiline = text.indexOf('\n') >= 0;
        byte[] kinds = Stops.kinds(multiline);
        boolean begins = multiline && (from == 0 || text.charAt(from - 1) == '\n'); // a line
        for (int i = from; i < length; i++) {
            if (i < found.end()) {
                tables.partIsMasked(text);
                i = found.end() - 1;
                begins = false;
                continue;
            }
            if (begins) {
                tables.lineBegins(text, i, found);
                begins = false;
                if (i < found.end()) continue;
            }
            i = Stops.behindPlain(text, i, length, kinds);
            if (i == length) break;
            char c = text.charAt(i);
            byte kind = kinds[c];
            begins = false;
            if (stops.isNothing(text, i, kind, multiline) && (kind != Stops.SIGN || named.isPlain(i))) continue;
            if (kind == Stops.TAG && !Markup.isEnd(text, i)) {
                int behind = markup.behindQuiet(text, i);
                if (behind > i) {
                    i = behind - 1;
                    continue;
                }
            }
            findAt(text, i, kind, found);
            if (kind == Stops.DIGIT && found.end() <= i) i = lastDigit(text, i); // no number begins within one
            begins = multiline && c == '\n';
        }
        tables.lineEnds(text, length);
    }

    private static int lastDigit(String text, int at) {
        int last = at;
        while (last + 1 < text.length() && Chars.isDigit(text.charAt(last + 1))) last++;
        return last;
    }

    private void findAt(String text, int at, byte kind, Found found) {
        switch (kind) {
            case Stops.SIGN -> {
                named.findAt(text, at, found);
                if (found.end() > at) return;
                if (text.charAt(at) == '=') credentials.inDigest(text, at, found);
                else if (text.startsWith("//", at + 1)) credentials.hook(text, at, found);
            }
            case Stops.TAG -> markup.findAt(text, at, found);
            case Stops.AT -> credentials.inUrl(text, at, found);
            case Stops.HYPHEN -> {
                shapes.findAt(text, at, found);
                if (text.startsWith(">", at + 1)) named.findAt(text, at, found);
                if (found.end() <= at) KeyShapes.pem(text, at, found);
                if (found.end() <= at) credentials.behindFlag(text, at, found);
            }
            case Stops.DIGIT -> {
                int iban = at - 2; // before its check digits are two letters
                if (iban >= begun && iban >= found.end() && Cards.isCapital(text.charAt(at - 1)))
                    Cards.iban(text, iban, found);
                if (found.end() <= at) cards.findAt(text, at, found);
            }
            case Stops.BLANK -> {
                if (at > 1 && Chars.isLetter(text.charAt(at - 1))) {
                    credentials.behindScheme(text, at, found);
                    if (found.end() <= at) phrases.behindWord(text, at, found);
                }
                char blank = text.charAt(at);
                if (blank == '\t') tables.separatorAt(text, at);
                else if (blank == '\n' || blank == '\r') tables.lineEnds(text, at);
            }
            case Stops.PERCENT -> {
                if (Percent.behind(text, at, "3A", "3D") > at) named.findAt(text, at, found);
            }
            case Stops.COMMA -> {
                char quote = at > 0 ? text.charAt(at - 1) : ' ';
                if (quote == '"' || quote == '\'') arguments.behindComma(text, at, found);
                tables.separatorAt(text, at);
            }
            case Stops.ENTITY -> markup.escapedAt(text, at, found);
            case Stops.CALL -> arguments.inCall(text, at, found);
            case Stops.SEPARATOR -> {
                if (text.charAt(at) == '|') named.inRow(text, at, found);
                tables.separatorAt(text, at);
            }
            default -> shapes.findAt(text, at, found);
        }
    }

    /** Both in the order of the text; where two overlap, what covers both. */
    private static Found merged(Found known, List<int[]> fixed, int from) {
        List<Found.Span> all = new ArrayList<>(known.spans());
        for (int[] position : fixed)
            if (position[1] > from) all.add(new Found.Span(position[0], position[1], Mask.TEXT, false, Rest.NONE));
        all.sort((a, b) ->
                a.start() != b.start() ? Integer.compare(a.start(), b.start()) : Integer.compare(b.end(), a.end()));
        var merged = new Found();
        Found.Span last = null;
        for (Found.Span one : all) {
            if (last != null && one.start() < last.end()) {
                Found.Span longer = one.end() > last.end() ? one : last;
                last = new Found.Span(last.start(), longer.end(), last.replacement(), longer.open(), longer.rest());
                continue;
            }
            if (last != null) merged.put(last);
            last = one;
        }
        if (last != null) merged.put(last);
        return merged;
    }
}
