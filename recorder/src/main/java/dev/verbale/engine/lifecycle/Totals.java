package dev.verbale.engine.lifecycle;

import dev.verbale.vocabulary.Outcome;
import java.util.HashSet;
import java.util.Set;
import java.util.StringJoiner;

/**
 * Counts the tests that ended in this JVM, each once: of a test that was run again the last outcome counts. It remembers a
 * number for each key and not the key, so that a hundred thousand tests take two megabytes.
 */
public final class Totals {

    private final int[] byOutcome = new int[Outcome.known().size() + 1];
    private int ended;

    // Open addressing, always less than half full.
    private long[] keys = new long[1 << 8];
    private byte[] outcomes = new byte[1 << 8];
    private int tests;

    private final Set<String> broken = new HashSet<>();

    public synchronized void add(String key, Outcome outcome) {
        ended++;
        if (2 * (tests + 1) > keys.length) grow();
        long hash = hash(key);
        int position = position(keys, hash);
        if (keys[position] == 0) tests++;
        else byOutcome[outcomes[position]]--;
        keys[position] = hash;
        outcomes[position] = (byte) number(outcome);
        byOutcome[number(outcome)]++;
    }

    /** The total of an outcome of somebody's own is the last. */
    private static int number(Outcome outcome) {
        int known = Outcome.known().indexOf(outcome);
        return known < 0 ? Outcome.known().size() : known;
    }

    private void grow() {
        var moreKeys = new long[2 * keys.length];
        var moreOutcomes = new byte[2 * keys.length];
        for (int i = 0; i < keys.length; i++) {
            if (keys[i] == 0) continue;
            int position = position(moreKeys, keys[i]);
            moreKeys[position] = keys[i];
            moreOutcomes[position] = outcomes[i];
        }
        keys = moreKeys;
        outcomes = moreOutcomes;
    }

    private static int position(long[] keys, long hash) {
        int position = (int) (hash >>> 32) & (keys.length - 1);
        while (keys[position] != 0 && keys[position] != hash) position = (position + 1) & (keys.length - 1);
        return position;
    }

    /** FNV-1a over the characters, mixed at the end as SplitMix64 does; never 0. Two of a million keys meet once in 10^7. */
    private static long hash(String key) {
        long hash = 0xcbf29ce484222325L;
        for (int i = 0; i < key.length(); i++) hash = (hash ^ key.charAt(i)) * 0x100000001b3L;
        hash = (hash ^ (hash >>> 30)) * 0xbf58476d1ce4e5b9L;
        hash = (hash ^ (hash >>> 27)) * 0x94d049bb133111ebL;
        hash ^= hash >>> 31;
        return hash == 0 ? 1 : hash;
    }

    /** A class came to its end: whether its own set-up or tear-down has to be looked at, the last time that it ended. */
    public synchronized void addClass(String key, Outcome outcome) {
        if (outcome.needsAttention() ? broken.add(key) : broken.remove(key)) ended++;
    }

    /** How many tests there are. */
    public synchronized int all() {
        return tests;
    }

    /** How much there was to say until now: it is more after each test. */
    public synchronized int ended() {
        return ended;
    }

    /** Such as {@code 41 tests: 38 passed, 1 skipped, 2 failed}, or {@code 2 tests: 2 passed; 1 class broke outside its tests}. */
    public synchronized String sentence() {
        String outside = broken.isEmpty()
                ? ""
                : "; " + broken.size()
                        + (broken.size() == 1
                                ? " class broke outside its tests"
                                : " classes broke outside their tests");
        return byOutcome() + outside;
    }

    private String byOutcome() {
        if (tests == 0) return "no test was recorded";
        var parts = new StringJoiner(", ", (tests == 1 ? "1 test: " : tests + " tests: "), "");
        for (Outcome outcome : Outcome.known()) {
            int count = byOutcome[number(outcome)];
            if (count > 0) parts.add(count + " " + outcome.text());
        }
        return parts.toString();
    }
}
