package dev.verbale.report;

import dev.verbale.history.DurationStep;
import dev.verbale.history.History;
import dev.verbale.history.ReasonHistory;
import dev.verbale.history.RunSummary;
import dev.verbale.history.TestHistory;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import java.time.Instant;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * What a page says of the runs before: the last {@value #MAX_RUNS} of the same branch that are remembered.
 *
 * @param list of them, the oldest first; never empty
 * @param rows one letter a run, the oldest first, of tests that need attention or were flaky; by key
 * @param marks of tests that somebody should look at over the runs, those that fail now first
 * @param reasons what is known of this run's reasons, by id; those that are not in there were never seen before
 */
record EarlierRuns(
        List<RunSummary> list, Map<String, String> rows, List<Marks> marks, Map<String, ReasonHistory> reasons) {

    static final int MAX_RUNS = 20;

    private static final int MAX_FAILING = 150;
    private static final int MAX_FLAKY = 40;
    private static final int MAX_SLOWER = 20;

    /** Of a run that did not have the test. */
    private static final char NOT_THERE = ' ';

    /**
     * One test over the runs.
     *
     * @param why {@code failing}, {@code flaky} or {@code slower}
     * @param step how much longer it takes; null where that is not why
     * @param letters one for each run of the list, as {@link TestHistory#row()} has them, or a blank where it was not there
     */
    record Marks(
            String key, String name, String why, @Nullable DurationStep step, String letters) {}

    /** When the last of them began. */
    Instant last() {
        return list.get(list.size() - 1).started();
    }

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
        History branches =
                history.only(one -> one.branch().equals(branch) && one.started().isBefore(run.started()));
        Map<String, String> rows = new HashMap<>();
        Map<String, Marks> marks = new LinkedHashMap<>();
        for (TestResult test : run.tests()) {
            if (test.superseded() || !(test.outcome().needsAttention() || test.recovered())) continue;
            TestHistory known = branches.test(test.key()).orElse(null);
            if (known != null) rows.put(test.key(), newest(known.row()));
            if (known != null && marks.size() < MAX_FAILING) marks.put(test.key(), marks(known, "failing", last, null));
        }
        for (TestHistory flaky : branches.flaky(MAX_FLAKY))
            marks.putIfAbsent(flaky.key(), marks(flaky, "flaky", last, null));
        for (TestHistory slower : branches.slower(MAX_SLOWER))
            marks.putIfAbsent(
                    slower.key(),
                    marks(
                            slower,
                            "slower",
                            last,
                            branches.durationStep(slower.key()).orElse(null)));
        Map<String, ReasonHistory> reasons =
                branches.reasons().stream().collect(Collectors.toMap(ReasonHistory::id, reason -> reason));
        return new EarlierRuns(List.copyOf(last), rows, List.copyOf(marks.values()), reasons);
    }

    private static String newest(String row) {
        return row.substring(Math.max(0, row.length() - MAX_RUNS));
    }

    private static Marks marks(TestHistory test, String why, List<RunSummary> runs, @Nullable DurationStep step) {
        Map<String, Character> letters = new HashMap<>();
        String row = test.row();
        for (int i = 0; i < row.length(); i++)
            letters.put(test.appearances().get(i).run().name(), row.charAt(i));
        var all = new StringBuilder();
        for (RunSummary run : runs) all.append((char) letters.getOrDefault(run.name(), NOT_THERE));
        return new Marks(test.key(), test.name(), why, step, all.toString());
    }
}
