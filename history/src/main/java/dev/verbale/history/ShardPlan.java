package dev.verbale.history;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * Test classes for several machines, so that these end together: by what each class usually takes, the longest first, each to the machine that
 * has least (LPT, Graham 1969), and then changed while that helps.
 *
 * @param shards one for each machine; each class is in one of them
 * @param unknown classes of which no time is remembered; they are taken to need what most classes need
 * @since 0.2.0
 */
public record ShardPlan(List<Shard> shards, List<String> unknown) {

    private static final int MAX_CHANGES = 1_000;

    /** A machine's part. */
    public record Shard(List<String> classes, Duration expected) {
        public Shard {
            classes = List.copyOf(classes);
        }
    }

    public ShardPlan {
        shards = List.copyOf(shards);
        unknown = List.copyOf(unknown);
    }

    /**
     * Of these classes.
     *
     * @param history what they took; may be empty
     * @param classes their names, nested ones by the class around them
     * @param machines at least 1
     */
    public static ShardPlan of(History history, Collection<String> classes, int machines) {
        Map<String, Long> known = new HashMap<>();
        ClassHistory.of(history).forEach((name, past) -> known.put(name, past.millis()));
        List<String> unknown = new ArrayList<>();
        long usual = ClassHistory.median(
                classes.stream().filter(known::containsKey).map(known::get).toList());
        Map<String, Long> all = new TreeMap<>();
        for (String one : new TreeSet<>(classes)) {
            Long millis = known.get(one);
            if (millis == null) unknown.add(one);
            all.put(one, Math.max(1, millis == null ? usual : millis));
        }
        return new ShardPlan(shares(all, machines), unknown);
    }

    /** How long it takes until the last machine ends, by what is remembered. */
    public Duration expected() {
        return shards.stream()
                .map(Shard::expected)
                .max(Comparator.naturalOrder())
                .orElse(Duration.ZERO);
    }

    private static List<Shard> shares(Map<String, Long> all, int machines) {
        List<String> longestFirst = new ArrayList<>(all.keySet());
        longestFirst.sort(Comparator.comparing((String one) -> -all.getOrDefault(one, 0L)));
        List<List<String>> parts = new ArrayList<>();
        for (int i = 0; i < machines; i++) parts.add(new ArrayList<>());
        long[] loads = new long[machines];
        for (String one : longestFirst) {
            int least = least(loads);
            parts.get(least).add(one);
            loads[least] += all.getOrDefault(one, 0L);
        }
        for (int i = 0; i < MAX_CHANGES && isBettered(all, parts, loads); i++) {
            // once more
        }
        List<Shard> shards = new ArrayList<>();
        for (int i = 0; i < machines; i++)
            shards.add(new Shard(parts.get(i).stream().sorted().toList(), Duration.ofMillis(loads[i])));
        return shards;
    }

    private static int least(long[] loads) {
        int least = 0;
        for (int i = 1; i < loads.length; i++) if (loads[i] < loads[least]) least = i;
        return least;
    }

    /** Gives a class of the machine that ends last to another, or swaps it with one of that, where both then end before it did. */
    private static boolean isBettered(Map<String, Long> all, List<List<String>> parts, long[] loads) {
        long longest = Arrays.stream(loads).max().orElse(0);
        int last = 0;
        while (loads[last] < longest) last++;
        for (int other = 0; other < loads.length; other++) {
            if (other == last) continue;
            List<String> theirs = new ArrayList<>(parts.get(other));
            theirs.add(""); // for nothing in return
            for (String mine : parts.get(last))
                for (String one : theirs) {
                    long moved = all.getOrDefault(mine, 0L) - all.getOrDefault(one, 0L);
                    if (moved <= 0 || loads[other] + moved >= longest) continue;
                    parts.get(last).remove(mine);
                    parts.get(other).add(mine);
                    if (!one.isEmpty()) {
                        parts.get(other).remove(one);
                        parts.get(last).add(one);
                    }
                    loads[last] -= moved;
                    loads[other] += moved;
                    return true;
                }
        }
        return false;
    }
}
