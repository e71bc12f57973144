package dev.verbale.json;

/**
 * Texts in which every surrogate has its other half. Others are no Unicode, and neither UTF-8 nor a URL can hold them.
 *
 * @since 0.2.0
 */
public final class WellFormedText {

    private static final char REPLACEMENT = '\uFFFD';

    private WellFormedText() {}

    /** {@code text} with each half that is alone replaced by U+FFFD; the same instance where there is none. */
    public static String of(String text) {
        int lone = firstLone(text, 0);
        if (lone < 0) return text;
        char[] characters = text.toCharArray();
        for (int at = lone; at >= 0; at = firstLone(text, at + 1)) characters[at] = REPLACEMENT;
        return new String(characters);
    }

    private static int firstLone(String text, int from) {
        int length = text.length();
        int i = from;
        while (i < length) {
            char c = text.charAt(i++);
            if (c < Character.MIN_SURROGATE || c > Character.MAX_SURROGATE) continue;
            boolean paired = Character.isHighSurrogate(c) && i < length && Character.isLowSurrogate(text.charAt(i));
            if (!paired) return i - 1;
            i++;
        }
        return -1;
    }
}
