package dev.verbale.internal;

import dev.verbale.event.Outcome;
import java.util.StringJoiner;

/**
 * Counts the tests that ended in this JVM, each once: of a test that was run again the last outcome counts. It remembers a
 * number for each key and not the key, so that a hundred thousand tests take two megabytes.
 */
final class Totals {

    private final int[] byOutcome = new int[Outcome.values().length];
    private int ended;

    // Open addressing, always less than half full.
    private long[] keys = new long[1 << 8];
    private byte[] outcomes = new byte[1 << 8];
    private int tests;

    synchronized void add(String key, Outcome outcome) {
        ended++;
        if (2 * (tests + 1) > keys.length) grow();
        long hash = hash(key);
        int place = place(keys, hash);
        if (keys[place] == 0) tests++;
        else byOutcome[outcomes[place]]--;
        keys[place] = hash;
        outcomes[place] = (byte) outcome.ordinal();
        byOutcome[outcome.ordinal()]++;
    }

    private void grow() {
        var moreKeys = new long[2 * keys.length];
        var moreOutcomes = new byte[2 * keys.length];
        for (int i = 0; i < keys.length; i++) {
            if (keys[i] == 0) continue;
            int place = place(moreKeys, keys[i]);
            moreKeys[place] = keys[i];
            moreOutcomes[place] = outcomes[i];
        }
        keys = moreKeys;
        outcomes = moreOutcomes;
    }

    private static int place(long[] keys, long hash) {
        int place = (int) (hash >>> 32) & (keys.length - 1);
        while (keys[place] != 0 && keys[place] != hash) place = (place + 1) & (keys.length - 1);
        return place;
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

    /** How many there are. */
    synchronized int all() {
        return tests;
    }

    /** How many ended, each attempt counted. */
    synchronized int ended() {
        return ended;
    }

    /** Such as {@code 41 tests: 38 passed, 1 skipped, 2 failed}. */
    synchronized String sentence() {
        if (tests == 0) return "no test was recorded";
        var parts = new StringJoiner(", ", (tests == 1 ? "1 test: " : tests + " tests: "), "");
        for (Outcome outcome : Outcome.values()) {
            int count = byOutcome[outcome.ordinal()];
            if (count > 0) parts.add(count + " " + outcome.word());
        }
        return parts.toString();
    }
}
