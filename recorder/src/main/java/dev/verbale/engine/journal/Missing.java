package dev.verbale.engine.journal;

import java.util.Map;
import java.util.StringJoiner;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.LongAdder;

/** Counts what should have been recorded and is not, by what it was. */
public final class Missing {

    private final Map<String, LongAdder> byKind = new ConcurrentHashMap<>();

    public void add(String kind, long count) {
        byKind.computeIfAbsent(kind, k -> new LongAdder()).add(count);
    }

    /** What is missing now, in the order of the alphabet; nothing that was made up for since. */
    public Map<String, Long> now() {
        Map<String, Long> now = new TreeMap<>();
        for (var kind : byKind.entrySet()) {
            long count = kind.getValue().sum();
            if (count > 0) now.put(kind.getKey(), count);
        }
        return now;
    }

    public static long all(Map<String, Long> byKind) {
        long all = 0;
        for (long count : byKind.values()) all += count;
        return all;
    }

    /** Such as {@code 12 log, 2 step-ended}. */
    public static String inWords(Map<String, Long> byKind) {
        var words = new StringJoiner(", ");
        byKind.forEach((kind, count) -> words.add(count + " " + kind));
        return words.toString();
    }
}
