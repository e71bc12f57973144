package dev.verbale.history;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * What is remembered of a test class: of its tests, and of those of classes nested in it.
 *
 * @param millis what it usually takes: the median of the last runs that had it
 * @param runs how many of the last runs had it
 * @param failures how many of these ended with a test of it that needs attention, or needed another attempt
 * @param since how many runs there were after the last that had it
 */
record ClassHistory(long millis, int runs, int failures, int since) {

    /** So many of the newest runs count. */
    private static final int RUNS = 20;

    /** And of these for its time. */
    private static final int TIMED = 10;

    /** By the names of the classes. */
    static Map<String, ClassHistory> of(History history) {
        List<RunResults> all = history.results();
        List<RunResults> runs = all.subList(Math.max(0, all.size() - RUNS), all.size());
        Map<String, Counted> counted = new HashMap<>();
        for (int i = 0; i < runs.size(); i++) count(runs.get(i), i, counted);
        Map<String, ClassHistory> of = new HashMap<>();
        counted.forEach((name, one) -> of.put(
                name,
                new ClassHistory(
                        median(one.millis.subList(Math.max(0, one.millis.size() - TIMED), one.millis.size())),
                        one.millis.size(),
                        one.failures,
                        runs.size() - 1 - one.last)));
        return of;
    }

    private static final class Counted {
        private final List<Long> millis = new ArrayList<>();
        private int failures;
        private int last;
    }

    private static void count(RunResults run, int number, Map<String, Counted> counted) {
        Map<String, Long> millis = new HashMap<>();
        Map<String, Boolean> failed = new HashMap<>();
        var origins = run.origins();
        for (int i = 0; i < Math.min(run.size(), origins.size()); i++) {
            String name = origins.get(i).className();
            if (name == null) continue;
            String outer = name.replaceFirst("(?<=.)\\$.*", "");
            millis.merge(outer, (long) run.millis(i), Long::sum);
            failed.merge(outer, run.outcome(i).needsAttention() || run.isRecovered(i), Boolean::logicalOr);
        }
        millis.forEach((name, all) -> {
            Counted one = counted.computeIfAbsent(name, added -> new Counted());
            one.millis.add(all);
            one.last = number;
            if (failed.getOrDefault(name, false)) one.failures++;
        });
    }

    static long median(List<Long> values) {
        if (values.isEmpty()) return 1;
        long[] sorted = values.stream().mapToLong(Long::longValue).sorted().toArray();
        return (sorted[(sorted.length - 1) / 2] + sorted[sorted.length / 2]) / 2;
    }
}
