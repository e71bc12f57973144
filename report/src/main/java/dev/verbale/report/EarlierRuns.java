package dev.verbale.report;

import dev.verbale.history.History;
import dev.verbale.history.History.RunSummary;
import dev.verbale.history.ReasonHistory;
import dev.verbale.history.TestHistory;
import dev.verbale.history.TestHistory.Appearance;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * What a page says of the runs before: the last {@value #MAX_RUNS} of the same branch that are remembered.
 *
 * @param runs how many there are
 * @param last when the last of them began
 * @param rows one letter a run, the oldest first, of tests that need attention or were flaky; by key
 * @param fresh keys of tests that need attention now and did not when they ran last
 * @param reasons what is known of this run's reasons, by id; those that are not in there are new
 */
record EarlierRuns(
        int runs, Instant last, Map<String, String> rows, Set<String> fresh, Map<String, ReasonHistory> reasons) {

    static final int MAX_RUNS = 20;

    /** Null where nothing before {@code run} is remembered. */
    static @Nullable EarlierRuns of(Run run, @Nullable History history) {
        if (history == null) return null;
        String branch = run.facts().getOrDefault("branch", "");
        List<RunSummary> before = history.runs().stream()
                .filter(one ->
                        one.started().isBefore(run.started()) && one.branch().equals(branch))
                .toList();
        if (before.isEmpty()) return null;
        List<RunSummary> last = before.subList(Math.max(0, before.size() - MAX_RUNS), before.size());
        Instant from = last.get(0).started();
        Predicate<RunSummary> counted = one -> one.branch().equals(branch)
                && one.started().isBefore(run.started())
                && !one.started().isBefore(from);
        Map<String, String> rows = new HashMap<>();
        Set<String> fresh = new HashSet<>();
        for (TestResult test : run.tests()) {
            if (test.superseded() || !(test.outcome().needsAttention() || test.recovered())) continue;
            TestHistory known = history.test(test.key(), counted).orElse(null);
            if (known != null) rows.put(test.key(), known.row());
            if (test.outcome().needsAttention() && !failedLast(known)) fresh.add(test.key());
        }
        Map<String, ReasonHistory> reasons =
                history
                        .reasons(one ->
                                one.branch().equals(branch) && one.started().isBefore(run.started()))
                        .stream()
                        .collect(Collectors.toMap(ReasonHistory::id, reason -> reason));
        return new EarlierRuns(last.size(), last.get(last.size() - 1).started(), rows, fresh, reasons);
    }

    private static boolean failedLast(@Nullable TestHistory known) {
        if (known == null) return false;
        List<Appearance> all = known.appearances();
        return all.get(all.size() - 1).outcome().needsAttention();
    }
}
