package dev.verbale.secrets;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;

/** Words that names end in, to be compared with what ends somewhere in a text, in any case. */
final class Endings {

    private static final int LETTERS = 128;
    private static final int BITS = 5;

    /** The words by their last letter: a name is compared with three words, not with thirty. */
    private final String[][] byLastLetter = new String[LETTERS][];

    /** A bit for each three last characters that a word may end in, or that may stand before one of two: they decide for nearly all. */
    private final long[] lastThree = new long[1 << (3 * BITS - 6)];

    /** @param all in small letters */
    Endings(Collection<String> all) {
        List<List<String>> words = new ArrayList<>();
        for (int letter = 0; letter < LETTERS; letter++) words.add(new ArrayList<>());
        for (String word : all)
            if (!word.isEmpty()) words.get(slot(word.charAt(word.length() - 1))).add(word);
        for (int letter = 0; letter < LETTERS; letter++) {
            byLastLetter[letter] = words.get(letter).toArray(new String[0]);
            for (String word : byLastLetter[letter]) {
                for (int third = 0; third < 1 << BITS; third++)
                    for (int second = 0; second < 1 << BITS; second++) {
                        if (word.length() > 1 && bits(word.charAt(word.length() - 2)) != second) continue;
                        if (word.length() > 2 && bits(word.charAt(word.length() - 3)) != third) continue;
                        int index = (third << 2 * BITS) | (second << BITS) | bits(word.charAt(word.length() - 1));
                        lastThree[index >> 6] |= 1L << (index & 63);
                    }
            }
        }
    }

    /** Small and capital letters have the same. */
    private static int bits(char c) {
        return c & ((1 << BITS) - 1);
    }

    /** Whether a word ends right before {@code end}. */
    boolean isAnyBefore(String text, int end) {
        return mayEnd(text, end) && wordBefore(text, end) > 0;
    }

    /** Whether a word may end there, by its last three characters: false for nearly all, and quick. */
    private boolean mayEnd(String text, int end) {
        if (end < 3) return end > 0;
        int index = (bits(text.charAt(end - 3)) << 2 * BITS)
                | (bits(text.charAt(end - 2)) << BITS)
                | bits(text.charAt(end - 1));
        return (lastThree[index >> 6] >>> (index & 63) & 1) != 0;
    }

    /** Small and capital letters have one; so does what is not ASCII, which are few. */
    private static int slot(char last) {
        return (last | 0x20) % LETTERS;
    }

    /** The length of the word that ends right before {@code end} in {@code text}; 0 where none does. */
    int lengthBefore(String text, int end) {
        return mayEnd(text, end) ? wordBefore(text, end) : 0;
    }

    private int wordBefore(String text, int end) {
        for (String word : byLastLetter[slot(text.charAt(end - 1))])
            if (isBefore(text, end, word)) return word.length();
        return 0;
    }

    /** Whether {@code word} ends right before {@code end}, in any case. */
    private static boolean isBefore(String text, int end, String word) {
        int length = word.length();
        if (end < length) return false;
        for (int i = 1; i <= length; i++) { // from its end: what ends in id is seldom a session's
            char c = text.charAt(end - i);
            char wanted = word.charAt(length - i);
            if (c == wanted) continue;
            if (c >= LETTERS || wanted >= LETTERS) return text.regionMatches(true, end - length, word, 0, length);
            if ((c ^ wanted) != 0x20 || !Chars.isLetter(c)) return false;
        }
        return true;
    }
}
