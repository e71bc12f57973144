package dev.verbale.results.reason;

import java.util.List;
import java.util.regex.Pattern;

/**
 * The words of what the suite's own code threw, or asserted in words of its own. What libraries say is known to the masks; here one {@code throw}
 * statement makes many messages: "Stall Herbs closed at 12" and "Stall Honey and jam closed at 12" differ in what no mask knows,
 * and share the rest in its order.
 *
 * @param origin type of the error and the method that threw it
 * @param words of the masked message, in order
 */
record Wording(String origin, List<String> words) {

    private static final Pattern BETWEEN = Pattern.compile("[^\\p{L}\\p{N}#_.$]+");
    private static final int MAX_WORDS = 80;

    /** Of the longer message. With less, two messages of one method that does many things become one. */
    private static final double LEAST_SHARED = 0.7;

    /**
     * Where both begin and end alike. A message that begins with what varies is often of a method that does anything: "… did not
     * happen in time".
     */
    private static final double LEAST_AROUND = 0.5;

    /** Words that both begin with, before what varies at the end: "Unexpected state of hive: …". */
    private static final int LEAST_FIRST = 4;

    /** Of a few words nobody can tell what varies. */
    private static final int LEAST_WORDS = 5;

    static Wording of(String origin, MaskedMessage message) {
        return new Wording(
                origin + message.answered(),
                BETWEEN.splitAsStream(message.text())
                        .filter(word -> !word.isEmpty())
                        .limit(MAX_WORDS)
                        .toList());
    }

    /** Whether both are of one statement, as far as their words show. */
    boolean isLike(Wording other) {
        int longer = Math.max(words.size(), other.words.size());
        if (!origin.equals(other.origin) || longer < LEAST_WORDS) return false;
        int shared = sharedInOrder(words, other.words);
        if (shared >= LEAST_SHARED * longer) return true;
        int first = sharedFirst(other);
        boolean isAround = first > 0 && words.get(words.size() - 1).equals(other.words.get(other.words.size() - 1));
        return shared >= LEAST_AROUND * longer && isAround || first >= LEAST_FIRST && first >= LEAST_AROUND * longer;
    }

    private int sharedFirst(Wording other) {
        int first = 0;
        while (first < Math.min(words.size(), other.words.size())
                && words.get(first).equals(other.words.get(first))) first++;
        return first;
    }

    /** The length of the longest common subsequence. */
    private static int sharedInOrder(List<String> a, List<String> b) {
        int[] before = new int[b.size() + 1];
        for (String word : a) {
            int[] now = new int[b.size() + 1];
            for (int i = 1; i <= b.size(); i++)
                now[i] = word.equals(b.get(i - 1)) ? before[i - 1] + 1 : Math.max(before[i], now[i - 1]);
            before = now;
        }
        return before[b.size()];
    }
}
