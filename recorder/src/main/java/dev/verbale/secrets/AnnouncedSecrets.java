package dev.verbale.secrets;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * Values that somebody announced, in the forms in which they may turn up: plain, URL-encoded, JSON- and HTML-escaped, as
 * UTF-8 bytes that were read as Latin-1, and in Base64, alone or inside a longer text at any of the three alignments.
 */
final class AnnouncedSecrets {

    /** Shorter ones would mask half of every log. */
    static final int SHORTEST = 4;

    private static final Pattern ESCAPE = Pattern.compile("%\\p{XDigit}{2}");

    private final List<String> forms = new CopyOnWriteArrayList<>();

    void add(String value) {
        if (value.length() < SHORTEST) return;
        Set<String> found = new LinkedHashSet<>(forms);
        found.add(value);
        String url = URLEncoder.encode(value, StandardCharsets.UTF_8);
        for (String encoded : List.of(url, url.replace("+", "%20"))) {
            found.add(encoded);
            found.add(
                    ESCAPE.matcher(encoded).replaceAll(escape -> escape.group().toLowerCase(Locale.ROOT)));
        }
        found.add(json(value, false));
        found.add(json(value, true));
        found.add(value.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;"));
        found.add(new String(value.getBytes(StandardCharsets.UTF_8), StandardCharsets.ISO_8859_1));
        for (int before = 0; before < 3; before++) base64(value, before).forEach(found::add);
        found.removeIf(form -> form.length() < SHORTEST);
        // The longest first: a short form may be a part of a longer one, and would leave the rest of it standing.
        List<String> sorted = found.stream()
                .sorted(Comparator.comparingInt(String::length).reversed())
                .toList();
        forms.removeIf(form -> true);
        forms.addAll(sorted);
    }

    boolean isEmpty() {
        return forms.isEmpty();
    }

    boolean isIn(String text) {
        for (String form : forms) if (text.contains(form)) return true;
        return false;
    }

    String mask(String text, String mask) {
        String masked = text;
        for (String form : forms) masked = masked.replace(form, mask);
        return masked;
    }

    private static String json(String value, boolean ascii) {
        var escaped = new StringBuilder();
        for (char c : value.toCharArray()) {
            if (c == '"' || c == '\\') escaped.append('\\').append(c);
            else if (c == '/' && ascii) escaped.append("\\/");
            else if (c < ' ' || (ascii && c > '~')) escaped.append(String.format("\\u%04x", (int) c));
            else escaped.append(c);
        }
        return escaped.toString();
    }

    /** What all encodings share of a text in which {@code before} bytes (and a multiple of three) precede the value. */
    private static Stream<String> base64(String value, int before) {
        byte[] bytes = value.getBytes(StandardCharsets.UTF_8);
        var padded = new byte[before + bytes.length];
        System.arraycopy(bytes, 0, padded, before, bytes.length);
        int first = before == 0 ? 0 : before == 1 ? 2 : 3; // characters that depend on what stands before
        int whole = padded.length * 8 / 6; // characters that do not depend on what comes after
        if (whole - first < SHORTEST + 2) return Stream.of();
        return Stream.of(Base64.getEncoder(), Base64.getUrlEncoder())
                .map(encoder -> encoder.withoutPadding().encodeToString(padded).substring(first, whole));
    }
}
