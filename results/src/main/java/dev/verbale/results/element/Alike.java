package dev.verbale.results.element;

import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;

/** How alike names are that people and programs give to the same thing. */
final class Alike {

    private static final Pattern BETWEEN_WORDS = Pattern.compile("[^\\p{L}\\p{N}]+|(?<=\\p{Ll})(?=\\p{Lu})");
    private static final int SHORTEST_WORD = 3;
    private static final int STEM = 5;

    private Alike() {}

    /** From 0 to 1: the share of pairs of letters that both have (Dice's coefficient of bigrams). */
    static double names(String one, String other) {
        String a = one.toLowerCase(Locale.ROOT);
        String b = other.toLowerCase(Locale.ROOT);
        if (a.equals(b)) return 1;
        if (a.length() < 2 || b.length() < 2) return 0;
        Map<String, Integer> pairs = new HashMap<>();
        for (int i = 0; i < a.length() - 1; i++) pairs.merge(a.substring(i, i + 2), 1, Integer::sum);
        int shared = 0;
        for (int i = 0; i < b.length() - 1; i++) {
            String pair = b.substring(i, i + 2);
            int left = pairs.getOrDefault(pair, 0);
            if (left == 0) continue;
            pairs.put(pair, left - 1);
            shared++;
        }
        return 2.0 * shared / (a.length() + b.length() - 2);
    }

    /** The words in {@code text}, in small letters and without their endings: "borrow" of "borrows" and of {@code borrow-now}. */
    static Set<String> stems(String text) {
        Set<String> stems = new LinkedHashSet<>();
        for (String word : BETWEEN_WORDS.split(text)) {
            if (word.length() < SHORTEST_WORD) continue;
            String small = word.toLowerCase(Locale.ROOT);
            stems.add(small.length() > STEM ? small.substring(0, STEM) : small);
        }
        return stems;
    }
}
