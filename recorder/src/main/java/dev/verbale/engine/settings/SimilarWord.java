package dev.verbale.engine.settings;

import java.util.Collection;
import java.util.Comparator;
import java.util.Locale;

/** Finds what somebody most likely meant. */
final class SimilarWord {

    private SimilarWord() {}

    /** The one of {@code known} that takes the fewest changes (Levenshtein's distance, capitals aside). */
    public static String to(String typed, Collection<String> known) {
        return known.stream()
                .min(Comparator.comparingInt(word -> distance(typed, word)))
                .orElse("");
    }

    static int distance(String one, String other) {
        String a = one.toLowerCase(Locale.ROOT);
        String b = other.toLowerCase(Locale.ROOT);
        int[] row = new int[b.length() + 1];
        for (int j = 0; j <= b.length(); j++) row[j] = j;
        for (int i = 1; i <= a.length(); i++) {
            int diagonal = row[0];
            row[0] = i;
            for (int j = 1; j <= b.length(); j++) {
                int changed = diagonal + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
                diagonal = row[j];
                row[j] = Math.min(changed, Math.min(row[j], row[j - 1]) + 1);
            }
        }
        return row[b.length()];
    }
}
