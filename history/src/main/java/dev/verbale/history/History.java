package dev.verbale.history;

import dev.verbale.history.RunColumns.Unusual;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.progress.RunProgress.Expectation;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Many runs, in the order of their times. Holds what did not simply pass; how long tests took is read when it is asked for. Safe for several
 * threads.
 *
 * @since 0.2.0
 */
public final class History {

    private final Suite suite;
    private final BitSet counted;
    /** The numbers in the suite of the runs that count, in their order. */
    private final int[] numbers;

    private final List<RunSummary> runs;
    private @Nullable Stability stability;
    private @Nullable Speeds speeds;

    private History(Suite suite, BitSet counted) {
        this.suite = suite;
        this.counted = counted;
        this.numbers = counted.stream().toArray();
        this.runs = Arrays.stream(numbers)
                .mapToObj(number -> suite.runs().get(number))
                .toList();
    }

    private static History of(Suite suite) {
        var all = new BitSet();
        all.set(0, suite.runs().size());
        return new History(suite, all);
    }

    /** Of these runs, in any order. */
    public static History of(List<RunDigest> digests) {
        Map<String, SuiteTable> tables = new HashMap<>();
        return ofColumns(digests.stream()
                .map(RunColumns::of)
                .map(columns ->
                        columns.in(tables.computeIfAbsent(columns.table().id(), id -> columns.table())))
                .toList());
    }

    /** @param columns in any order, tables shared; a run may be in there twice */
    static History ofColumns(List<RunColumns> columns) {
        Map<List<Object>, RunColumns> once = new LinkedHashMap<>();
        for (RunColumns one : columns)
            once.merge(List.of(one.run().name(), one.run().started()), one, History::fuller);
        return of(new Suite(once.values().stream()
                .sorted(Comparator.comparing((RunColumns one) -> one.run().started())
                        .thenComparing(one -> one.run().name()))
                .toList()));
    }

    /** Of two of the same run: a run may have been remembered before it was over, or its digest been torn. */
    private static RunColumns fuller(RunColumns one, RunColumns other) {
        boolean isFuller = other.run().isComplete() && !one.run().isComplete()
                || other.run().tests() > one.run().tests();
        return isFuller ? other : one;
    }

    /** Of those of these runs that {@code wanted} accepts. */
    public History only(Predicate<RunSummary> wanted) {
        var some = new BitSet();
        for (int number : numbers) if (wanted.test(suite.runs().get(number))) some.set(number);
        return new History(suite, some);
    }

    /** The newest of these runs, and {@code digest} behind them, whenever it began: what it means is judged by them. */
    public History with(RunDigest digest) {
        List<RunColumns> newest = new ArrayList<>();
        Map<String, SuiteTable> tables = new HashMap<>();
        for (int i = Math.max(0, numbers.length - StabilityModel.MAX_TRIALS); i < numbers.length; i++) {
            RunColumns columns = suite.columns(numbers[i]);
            tables.put(columns.table().id(), columns.table());
            newest.add(columns);
        }
        RunColumns last = RunColumns.of(digest);
        newest.add(last.in(tables.getOrDefault(last.table().id(), last.table())));
        return of(new Suite(newest));
    }

    /** The oldest first. */
    public List<RunSummary> runs() {
        return runs;
    }

    /** What a run that goes will probably be like: as the newest complete one of the whole suite. */
    public Expectation expected() {
        for (int i = runs().size() - 1; i >= 0; i--) {
            RunSummary run = runs().get(i);
            if (run.isComplete() && run.part().isEmpty()) return new Expectation(run.tests(), run.duration());
        }
        return Expectation.NONE;
    }

    /** What each of these runs says of its tests, the oldest first. */
    public List<RunResults> results() {
        return Arrays.stream(numbers)
                .mapToObj(number -> new RunResults(suite.columns(number)))
                .toList();
    }

    /** The keys of the tests in these runs, in the order in which they appeared. */
    public List<String> tests() {
        List<String> keys = new ArrayList<>();
        for (TestRow row : suite.rows()) if (suite.isIn(row, counted)) keys.add(row.key());
        return keys;
    }

    /** What a test is called; empty where it is in none of these runs. */
    public Optional<String> nameOf(String key) {
        return Optional.ofNullable(row(key)).map(TestRow::name);
    }

    private @Nullable TestRow row(String key) {
        TestRow row = suite.row(key);
        return row == null || !suite.isIn(row, counted) ? null : row;
    }

    /** What became of a test; empty where it is in none of these runs. */
    public Optional<TestHistory> test(String key) {
        return Optional.ofNullable(row(key)).map(this::history);
    }

    private TestHistory history(TestRow row) {
        List<Appearance> appearances = new ArrayList<>();
        for (int number : numbers) {
            if (suite.position(row, number) < 0) continue;
            Unusual unusual = row.in(number);
            int reason = row.reasonIn(number);
            appearances.add(new Appearance(
                    suite.runs().get(number),
                    unusual == null ? Outcome.PASSED : unusual.outcome(),
                    unusual == null ? 1 : unusual.attempts(),
                    unusual != null && unusual.recovered(),
                    reason < 0 ? null : suite.reasons().get(reason)));
        }
        return new TestHistory(row.key(), row.name(), appearances);
    }

    /** How long a test took, by run, in the order of the runs; each run's times are read for it. */
    public Map<RunSummary, Duration> durations(String key) {
        Map<RunSummary, Duration> durations = new LinkedHashMap<>();
        TestRow row = row(key);
        if (row == null) return durations;
        for (int number : numbers) {
            int position = suite.position(row, number);
            if (position < 0) continue;
            int[] millis = suite.columns(number).times().millis();
            if (position < millis.length) durations.put(suite.runs().get(number), Duration.ofMillis(millis[position]));
        }
        return durations;
    }

    /** That a test takes another time than it did; empty where it does not, or there are too few runs. */
    public Optional<DurationStep> durationStep(String key) {
        return Optional.ofNullable(row(key)).map(row -> speeds().of(row));
    }

    private synchronized Stability stability() {
        Stability made = stability;
        if (made == null) made = new Stability(suite, numbers, counted);
        stability = made;
        return made;
    }

    private synchronized Speeds speeds() {
        Speeds made = speeds;
        if (made == null) made = new Speeds(suite, numbers, counted);
        speeds = made;
        return made;
    }

    /** How flaky a test is; of one that is in none of these runs nothing is known. */
    public Flakiness flakiness(String key) {
        TestRow row = row(key);
        return row == null ? Flakiness.STEADY : stability().of(row);
    }

    /** Whether a test failed in the newest run together with many others, see {@link Disturbance}. */
    public boolean failedTogether(String key) {
        TestRow row = row(key);
        return row != null && stability().isSharedInNewest(row);
    }

    /** What tests took in the newest {@code limit} runs, the oldest of which is number 0. */
    UsualTimes usualTimes(int limit) {
        return new UsualTimes(suite, Arrays.copyOfRange(numbers, Math.max(0, numbers.length - limit), numbers.length));
    }

    /**
     * The tests that fail now and then and are not broken, those that surely fail most first.
     *
     * @param limit how many at the most
     */
    public List<TestHistory> flaky(int limit) {
        Stability all = stability();
        return all.unsteady().stream()
                .filter(row -> all.of(row).isFlaky())
                .sorted(Comparator.comparingDouble((TestRow row) -> -all.of(row).low())
                        .thenComparing(TestRow::key))
                .limit(limit)
                .map(this::history)
                .toList();
    }

    /** Runs that were not themselves, the oldest first, of the newest {@value StabilityModel#MAX_TRIALS}. */
    public List<Disturbance> disturbances() {
        return stability().disturbances();
    }

    /**
     * The tests that take longer than they did, those that lost most time first.
     *
     * @param limit how many at the most
     */
    public List<TestHistory> slower(int limit) {
        return speeds().slower().stream().limit(limit).map(this::history).toList();
    }

    /** The reasons that tests failed for, the last seen first, then those in most runs. */
    public List<ReasonHistory> reasons() {
        return new ReasonsOfRuns(suite, numbers, runs).all();
    }

    /** The title of a reason, as the newest run that has it says it; empty for null, and where no run has it. */
    public String titleOf(@Nullable String reason) {
        return reason == null ? "" : suite.titleOf(reason);
    }

    /** What became of a reason; empty where no run has it. */
    public Optional<ReasonHistory> reason(String id) {
        return reasons().stream().filter(reason -> reason.id().equals(id)).findFirst();
    }
}
