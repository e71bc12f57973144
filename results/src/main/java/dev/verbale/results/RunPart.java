package dev.verbale.results;

import dev.verbale.event.FactStated;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Which part of its suite a run was meant to run, by the facts that say so: {@link FactStated#SELECTION} and {@link FactStated#SHARD}.
 *
 * @since 0.2.0
 */
public final class RunPart {

    private static final Pattern SHARD = Pattern.compile("(\\d{1,6}) of (\\d{1,6})");
    private static final Pattern BETWEEN = Pattern.compile(", ");

    /** More than that are no shards, but a number that somebody mistyped. */
    private static final int MAX_SHARDS = 10_000;

    private RunPart() {}

    /** In words, such as {@code -Dtest=RotaTest} or {@code shard 2 of 4}; empty where the run was meant to be the whole suite. */
    public static String of(Map<String, String> facts) {
        String selection = facts.getOrDefault(FactStated.SELECTION, "");
        String shard = facts.getOrDefault(FactStated.SHARD, "");
        if (shard.isEmpty()) return selection;
        return (selection.isEmpty() ? "" : selection + ", ") + "shard " + shard;
    }

    /** The shards that were promised of a joined run and are not there, such as {@code 3 of 4}. */
    static List<String> absentShards(Map<String, String> facts) {
        String absent = facts.getOrDefault(FactStated.ABSENT_SHARDS, "");
        return absent.isEmpty() ? List.of() : List.of(BETWEEN.split(absent));
    }

    /** Whether each is a shard with a selection of its own: together they are no selection. */
    private static boolean isDividedBySelection(List<Map<String, String>> joined) {
        return joined.stream()
                        .noneMatch(one -> one.getOrDefault(FactStated.SHARD, "").isEmpty())
                && joined.stream()
                                .map(one -> one.getOrDefault(FactStated.SELECTION, ""))
                                .distinct()
                                .count()
                        > 1;
    }

    /**
     * States of a joined run what it is a part of: it is a selection where each of those it was joined of is one, and of shards it says
     * which are not there.
     *
     * @param facts of the joined run, which are changed
     * @param joined those of each run that it was joined of
     */
    static void join(Map<String, String> facts, List<Map<String, String>> joined) {
        if (joined.stream()
                .anyMatch(one -> one.getOrDefault(FactStated.SELECTION, "").isEmpty()))
            facts.remove(FactStated.SELECTION);
        if (isDividedBySelection(joined)) facts.remove(FactStated.SELECTION);
        facts.remove(FactStated.SHARD);
        Map<Integer, Set<Integer>> there = new TreeMap<>();
        for (Map<String, String> one : joined)
            for (String shard : BETWEEN.split(one.getOrDefault(FactStated.SHARD, ""))) {
                Matcher numbers = SHARD.matcher(shard);
                if (numbers.matches())
                    there.computeIfAbsent(Integer.valueOf(numbers.group(2)), total -> new TreeSet<>())
                            .add(Integer.valueOf(numbers.group(1)));
            }
        Set<String> absent = new LinkedHashSet<>();
        there.forEach((total, those) -> {
            for (int i = 1; i <= Math.min(MAX_SHARDS, total); i++)
                if (!those.contains(i)) absent.add(i + " of " + total);
        });
        for (Map<String, String> one : joined) absent.addAll(absentShards(one));
        List<String> still = new ArrayList<>(absent);
        if (!still.isEmpty()) facts.put(FactStated.ABSENT_SHARDS, String.join(", ", still));
    }
}
