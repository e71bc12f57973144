package dev.verbale.engine.lifecycle;

import dev.verbale.vocabulary.Outcome;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.StringJoiner;

/**
 * Counts the tests of this JVM, each once, as a reader of the run counts them: of a test that was run again the last outcome counts, of
 * two records of one key that overlap in time the worse, and one that did not end is unfinished. It remembers a number for each key and not
 * the key, so that a hundred thousand tests take four megabytes.
 */
public final class Totals {

    private final int[] byOutcome = new int[Outcome.known().size() + 1];
    private int ended;

    // Open addressing, always less than half full.
    private long[] keys = new long[1 << 8];
    private byte[] outcomes = new byte[1 << 8];
    private long[] ends = new long[1 << 8];
    private int tests;

    private final Map<Integer, String> running = new HashMap<>();

    private final Set<String> broken = new HashSet<>();

    /** A test began, or is known by another key since. */
    public synchronized void began(int id, String key) {
        running.put(id, key);
    }

    /**
     * A test ended.
     *
     * @param from when it began, in microseconds of the recorder's clock
     * @param to when it ended
     */
    public synchronized void ended(int id, String key, Outcome outcome, long from, long to) {
        ended++;
        running.remove(id);
        if (2 * (tests + 1) > keys.length) grow();
        long hash = hash(key);
        int position = position(keys, hash);
        int number = number(outcome);
        if (keys[position] == 0) {
            tests++;
        } else {
            byOutcome[outcomes[position]]--;
            if (from < ends[position]) number = Math.max(number, outcomes[position]);
        }
        keys[position] = hash;
        outcomes[position] = (byte) number;
        ends[position] = Math.max(to, ends[position]);
        byOutcome[number]++;
    }

    /** The total of an outcome of somebody's own is the last. */
    private static int number(Outcome outcome) {
        int known = Outcome.known().indexOf(outcome);
        return known < 0 ? Outcome.known().size() : known;
    }

    private void grow() {
        var moreKeys = new long[2 * keys.length];
        var moreOutcomes = new byte[2 * keys.length];
        var moreEnds = new long[2 * keys.length];
        for (int i = 0; i < keys.length; i++) {
            if (keys[i] == 0) continue;
            int position = position(moreKeys, keys[i]);
            moreKeys[position] = keys[i];
            moreOutcomes[position] = outcomes[i];
            moreEnds[position] = ends[i];
        }
        keys = moreKeys;
        outcomes = moreOutcomes;
        ends = moreEnds;
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

    /**
     * What they came to, such as {@code 41 tests: 38 passed, 1 skipped, 2 failed}, or {@code 2 tests: 2 passed; 1 class broke outside its tests}.
     *
     * @param isOver whether nothing more comes: then what runs now is unfinished, and until then it is not counted
     */
    public synchronized String sentence(boolean isOver) {
        String outside = broken.isEmpty()
                ? ""
                : "; " + broken.size()
                        + (broken.size() == 1
                                ? " class broke outside its tests"
                                : " classes broke outside their tests");
        return byOutcome(isOver ? Set.copyOf(running.values()) : Set.of()) + outside;
    }

    private String byOutcome(Set<String> unfinished) {
        int[] counts = byOutcome.clone();
        int all = tests;
        for (String key : unfinished) {
            int position = position(keys, hash(key));
            if (keys[position] == 0) all++;
            else counts[outcomes[position]]--;
            counts[number(Outcome.UNFINISHED)]++;
        }
        if (all == 0) return "no test was recorded";
        var parts = new StringJoiner(", ", (all == 1 ? "1 test: " : all + " tests: "), "");
        for (Outcome outcome : Outcome.known()) {
            int count = counts[number(outcome)];
            if (count > 0) parts.add(count + " " + outcome.text());
        }
        return parts.toString();
    }
}
