package dev.verbale.secrets;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HexFormat;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Values that somebody known, in the forms in which they may turn up. Immutable: whoever reads it while another value is
 * known has the old one or the new one, and each of them is whole.
 *
 * <p>The forms are those that encode the bytes: as they are, as UTF-8 that was read as Latin-1, in Base64 alone or inside a
 * longer text at any of the three alignments, in hexadecimal digits, and each line of a value of several lines. What only
 * escapes characters is undone in the text, layer by layer; see {@link Escapes}.
 */
final class KnownSecrets {

    /** Shorter ones would mask half of every log. */
    static final int SHORTEST = 4;

    /** A line of a longer value: shorter ones, such as a brace, are everybody's. */
    private static final int SHORTEST_LINE = 8;

    private static final int LAYERS = 3;
    private static final int SLOTS = 1 << 12;

    static final KnownSecrets NONE = new KnownSecrets(Set.of());

    /** Base64 as mails and keys have it comes in lines of 64 or 76 characters. */
    private static final int SHORTEST_BASE64_LINE = 40;

    private final Set<String> values;
    /** The forms by their first three characters; the longest first, for a short one may be a part of it. */
    private final String[][] slots = new String[SLOTS][];

    /**
     * For each value that somebody may write with escapes: its longest run of letters and digits, which no escape changes. They lie in
     * slots as {@link #slots} does. A text that holds none of these runs holds none of the values, and is not unescaped to look for
     * them. Null where a value has no letter or digit: then every text is.
     */
    private final String @Nullable [][] runs;

    private final int longest;

    private KnownSecrets(Set<String> values) {
        this.values = values;
        Set<String> forms = new LinkedHashSet<>();
        int limit = 0;
        for (String value : values) forms.addAll(forms(value));
        for (String form : forms) {
            limit = Math.max(limit, form.length());
            add(form, slots);
        }
        longest = limit;
        runs = runs(forms);
    }

    private static String @Nullable [][] runs(Set<String> forms) {
        var runs = new String[SLOTS][];
        for (String form : forms) {
            if (form.matches("[A-Za-z0-9_.~-]*")) continue; // nothing in it is ever escaped
            String longest = "";
            for (String run : form.split("[^A-Za-z0-9]+")) if (run.length() > longest.length()) longest = run;
            if (longest.length() < 3) return null;
            add(longest, runs);
        }
        return runs;
    }

    private static void add(String form, String[][] slots) {
        int slot = slot(form, 0);
        String[] before = slots[slot] == null ? new String[0] : slots[slot];
        List<String> all = new ArrayList<>(List.of(before));
        int position = 0;
        while (position < all.size() && all.get(position).length() >= form.length()) position++;
        all.add(position, form);
        slots[slot] = all.toArray(new String[0]);
    }

    private static int slot(String text, int at) {
        return slot(text.charAt(at), text.charAt(at + 1), text.charAt(at + 2));
    }

    private static int slot(char first, char second, char third) {
        int hash = first * 961 + second * 31 + third;
        return (hash ^ (hash >>> 12)) & (SLOTS - 1);
    }

    /** The next position from {@code from} on at which one of {@code forms} may begin; -1 for none. */
    private static int next(String text, int from, String[][] forms) {
        int length = text.length();
        if (from + 3 > length) return -1;
        char first = text.charAt(from);
        char second = text.charAt(from + 1);
        for (int i = from + 2; i < length; i++) {
            char third = text.charAt(i);
            if (forms[slot(first, second, third)] != null) return i - 2;
            first = second;
            second = third;
        }
        return -1;
    }

    /** These and {@code value}. */
    KnownSecrets with(String value) {
        if (value.length() < SHORTEST || values.contains(value)) return this;
        Set<String> more = new LinkedHashSet<>(values);
        more.add(value);
        return new KnownSecrets(more);
    }

    boolean isEmpty() {
        return values.isEmpty();
    }

    /** The most characters that one of them takes, however it is escaped. */
    int reach() {
        return isEmpty() ? 0 : longest * 12 + 64;
    }

    private static Set<String> forms(String value) {
        Set<String> forms = new LinkedHashSet<>();
        plain(value, forms);
        if (value.indexOf(' ') >= 0) forms.add(value.replace(' ', '+')); // in forms and query strings
        String[] lines = value.split("\\R");
        if (lines.length > 1)
            for (String line : lines) if (line.strip().length() >= SHORTEST_LINE) plain(line.strip(), forms);
        byte[] bytes = value.getBytes(StandardCharsets.UTF_8);
        for (int before = 0; before < 3; before++) base64(bytes, before, forms);
        if (bytes.length >= 6) {
            forms.add(HexFormat.of().formatHex(bytes));
            forms.add(HexFormat.of().withUpperCase().formatHex(bytes));
        }
        forms.removeIf(form -> form.length() < SHORTEST);
        return forms;
    }

    private static void plain(String value, Set<String> forms) {
        forms.add(value);
        forms.add(new String(value.getBytes(StandardCharsets.UTF_8), StandardCharsets.ISO_8859_1));
    }

    /** What all encodings share of a text in which {@code before} bytes (and a multiple of three) precede the value. */
    private static void base64(byte[] bytes, int before, Set<String> forms) {
        var padded = new byte[before + bytes.length];
        System.arraycopy(bytes, 0, padded, before, bytes.length);
        int first = before == 0 ? 0 : before == 1 ? 2 : 3; // characters that depend on what stands before
        int whole = padded.length * 8 / 6; // characters that do not depend on what comes after
        if (whole - first < SHORTEST + 1) return;
        for (Base64.Encoder encoder : List.of(Base64.getEncoder(), Base64.getUrlEncoder()))
            forms.add(encoder.withoutPadding().encodeToString(padded).substring(first, whole));
    }

    /** Where they stand in {@code text}; in its order. */
    void find(String text, List<int[]> positions) {
        if (isEmpty()) return;
        Escapes layer = Escapes.none(text);
        boolean escaped = mayBeEscaped(text);
        for (int depth = 0; layer != null && depth <= LAYERS; depth++) {
            search(layer, positions);
            if (hasBase64Lines(layer.text())) search(withoutLines(layer), positions);
            layer = escaped ? layer.undone() : null;
        }
        if (positions.size() > 1)
            positions.sort((a, b) -> a[0] != b[0] ? Integer.compare(a[0], b[0]) : Integer.compare(b[1], a[1]));
    }

    private boolean mayBeEscaped(String text) {
        if (runs == null) return true;
        for (int i = next(text, 0, runs); i >= 0; i = next(text, i + 1, runs))
            for (String run : runs[slot(text, i)]) if (text.startsWith(run, i)) return true;
        return false;
    }

    private void search(Escapes layer, List<int[]> positions) {
        String text = layer.text();
        for (int i = next(text, 0, slots); i >= 0; i = next(text, i + 1, slots)) {
            for (String form : slots[slot(text, i)]) {
                if (!text.startsWith(form, i)) continue;
                positions.add(new int[] {layer.original(i), layer.original(i + form.length())});
                i += form.length() - 1;
                break;
            }
        }
    }

    private static boolean hasBase64Lines(String text) {
        for (int line = text.indexOf('\n'); line >= 0; line = text.indexOf('\n', line + 1)) {
            int i = line - 1;
            if (i >= 0 && text.charAt(i) == '\r') i--;
            int from = i;
            while (i >= 0 && from - i < SHORTEST_BASE64_LINE && isBase64(text.charAt(i))) i--;
            if (from - i == SHORTEST_BASE64_LINE) return true;
        }
        return false;
    }

    private static boolean isBase64(char c) {
        return c < 128 && (Chars.isAlphanumeric(c) || c == '+' || c == '/');
    }

    private static Escapes withoutLines(Escapes layer) {
        String text = layer.text();
        var joined = new StringBuilder(text.length());
        var starts = new int[text.length() + 1];
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            boolean blankOfLine = (c == ' ' || c == '\t') && (joined.isEmpty() || i > 0 && text.charAt(i - 1) == '\n');
            if (c == '\n' || c == '\r' || blankOfLine) continue;
            starts[joined.length()] = layer.original(i);
            joined.append(c);
        }
        starts[joined.length()] = layer.original(text.length());
        return new Escapes(joined.toString(), java.util.Arrays.copyOf(starts, joined.length() + 1));
    }
}
