package dev.verbale.results;

/**
 * Texts for places where there is little room.
 *
 * @since 0.2.0
 */
public final class Texts {

    private Texts() {}

    /** {@code text}, or its beginning and three dots where it has more than {@code longest} characters. */
    public static String cut(String text, int longest) {
        if (text.length() <= longest) return text;
        int end = Character.isHighSurrogate(text.charAt(longest - 1)) ? longest - 1 : longest;
        return text.substring(0, end) + "…";
    }
}
