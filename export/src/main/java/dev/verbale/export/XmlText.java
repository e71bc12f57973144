package dev.verbale.export;

/** Texts that XML 1.0 can hold (its production 2, Char): no escape makes it hold any other character. */
final class XmlText {

    private XmlText() {}

    /** {@code text} with U+FFFD for what cannot stand in a document. */
    static String of(String text) {
        StringBuilder clean = null;
        for (int i = 0; i < text.length(); ) {
            int c = text.codePointAt(i);
            int next = i + Character.charCount(c);
            if (!isChar(c)) {
                if (clean == null) clean = new StringBuilder(text.length()).append(text, 0, i);
                clean.append('\uFFFD');
            } else if (clean != null) clean.appendCodePoint(c);
            i = next;
        }
        return clean == null ? text : clean.toString();
    }

    private static boolean isChar(int c) {
        return c == '\t'
                || c == '\n'
                || c == '\r'
                || (c >= 0x20 && c <= 0xD7FF)
                || (c >= 0xE000 && c <= 0xFFFD)
                || c >= 0x10000;
    }
}
