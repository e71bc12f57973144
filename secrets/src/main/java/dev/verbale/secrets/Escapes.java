package dev.verbale.secrets;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A text with one layer of escapes undone, and for each of its characters where it came from: whatever wrote a value down may
 * have escaped it, as URLs, JSON, HTML, XML, CSV and programs do, and again whatever wrote that down.
 *
 * @param text the plainer text
 * @param starts for each of its characters, and its end, where in the original it begins
 */
record Escapes(String text, int[] starts) {

    private static final Map<String, Character> ENTITIES =
            Map.of("amp", '&', "lt", '<', "gt", '>', "quot", '"', "apos", '\'', "nbsp", '\u00A0');

    static Escapes none(String text) {
        return new Escapes(text, new int[0]);
    }

    /** Where the character {@code at} of this text begins in the original. */
    int original(int at) {
        return starts.length == 0 ? at : starts[at];
    }

    /** With the outermost layer undone; null where there is none. */
    @Nullable
    Escapes undone() {
        if (!has(text)) return null;
        var plain = new Builder(text.length());
        for (int i = 0; i < text.length(); ) {
            char c = text.charAt(i);
            int next = switch (c) {
                case '%' -> percent(i, plain);
                case '\\' -> backslash(i, plain);
                case '&' -> entity(i, plain);
                case '"' -> doubled(i, plain);
                default -> i;
            };
            if (next == i) {
                plain.add(c, i);
                next = i + 1;
            }
            i = next;
        }
        return plain.isChanged ? plain.build(this) : null;
    }

    private static boolean has(String text) {
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '%' || c == '\\' || c == '&' || c == '"') return true;
        }
        return false;
    }

    /** Bytes in UTF-8, as RFC 3986 has them. */
    private int percent(int at, Builder plain) {
        int i = at;
        int count = 0;
        while (hex(i + 1, 2) >= 0 && i < text.length() && text.charAt(i) == '%' && count < 64) {
            i += 3;
            count++;
        }
        if (count == 0) return at;
        var bytes = new byte[count];
        for (int b = 0; b < count; b++) bytes[b] = (byte) hex(at + 3 * b + 1, 2);
        for (int b = 0; b < count; ) {
            int length = Math.min(utf8Length(bytes[b]), count - b);
            String character = new String(bytes, b, length, StandardCharsets.UTF_8);
            for (int k = 0; k < character.length(); k++) plain.change(character.charAt(k), at + 3 * b);
            b += length;
        }
        return i;
    }

    private static int utf8Length(byte first) {
        int b = first & 0xFF;
        return b < 0xC0 ? 1 : b < 0xE0 ? 2 : b < 0xF0 ? 3 : 4;
    }

    private int backslash(int at, Builder plain) {
        if (at + 1 >= text.length()) return at;
        char kind = text.charAt(at + 1);
        int code = kind == 'u' ? hex(at + 2, 4) : kind == 'x' ? hex(at + 2, 2) : -1;
        if (code >= 0) {
            plain.change((char) code, at);
            return at + (kind == 'u' ? 6 : 4);
        }
        int position = "\"\\/'nrtbf".indexOf(kind);
        if (position < 0) return at;
        plain.change("\"\\/'\n\r\t\b\f".charAt(position), at);
        return at + 2;
    }

    private int entity(int at, Builder plain) {
        int end = text.indexOf(';', at);
        if (end < 0 || end - at > 9 || end - at < 3) return at;
        String name = text.substring(at + 1, end);
        if (name.charAt(0) != '#') {
            Character known = ENTITIES.get(name);
            if (known == null) return at;
            plain.change(known, at);
            return end + 1;
        }
        try {
            int code = name.charAt(1) == 'x' || name.charAt(1) == 'X'
                    ? Integer.parseInt(name.substring(2), 16)
                    : Integer.parseInt(name.substring(1));
            if (!Character.isValidCodePoint(code)) return at;
            for (char c : Character.toChars(code)) plain.change(c, at);
            return end + 1;
        } catch (NumberFormatException none) {
            return at;
        }
    }

    private int doubled(int at, Builder plain) {
        if (at + 1 >= text.length() || text.charAt(at + 1) != '"') return at;
        plain.change('"', at);
        return at + 2;
    }

    private int hex(int from, int digits) {
        if (from + digits > text.length()) return -1;
        int value = 0;
        for (int i = from; i < from + digits; i++) {
            int digit = Character.digit(text.charAt(i), 16);
            if (digit < 0) return -1;
            value = value * 16 + digit;
        }
        return value;
    }

    private static final class Builder {
        private final StringBuilder plain;
        private int[] starts;
        boolean isChanged;

        Builder(int length) {
            plain = new StringBuilder(length);
            starts = new int[length + 1];
        }

        void add(char c, int start) {
            if (plain.length() + 1 >= starts.length) starts = java.util.Arrays.copyOf(starts, 2 * starts.length + 2);
            starts[plain.length()] = start;
            plain.append(c);
        }

        void change(char c, int start) {
            isChanged = true;
            add(c, start);
        }

        Escapes build(Escapes of) {
            var original = new int[plain.length() + 1];
            for (int i = 0; i < plain.length(); i++) original[i] = of.original(starts[i]);
            original[plain.length()] = of.original(of.text().length());
            return new Escapes(plain.toString(), original);
        }
    }
}
