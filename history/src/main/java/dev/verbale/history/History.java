package dev.verbale.history;

import dev.verbale.history.digest.MovedTests;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Predicate;

/**
 * Many runs, in the order of their times. Holds some twelve bytes a test and run, however long the texts are.
 *
 * @since 0.2.0
 */
public final class History {

    private final List<RunSummary> runs;
    private final Map<String, Row> rows;
    private final Map<String, String> titles;

    private History(List<RunSummary> runs, Map<String, Row> rows, Map<String, String> titles) {
        this.runs = List.copyOf(runs);
        this.rows = rows;
        this.titles = titles;
    }

    /** All outcomes of one test, as arrays beside each other. */
    private static final class Row {
        private String key;
        private String name;
        private int size;
        private int[] run = new int[8];
        private byte[] outcome = new byte[8];
        private int[] millis = new int[8];
        private short[] attempts = new short[8]; // negative where it recovered
        private int[] reason = new int[8]; // a position in the reasons, or -1

        private Row(String key, String name) {
            this.key = key;
            this.name = name;
        }

        private Row as(String other) {
            key = other;
            return this;
        }

        private void add(int inRun, byte how, int lasted, int tried, int why) {
            if (size == run.length) {
                int more = size * 2;
                run = Arrays.copyOf(run, more);
                outcome = Arrays.copyOf(outcome, more);
                millis = Arrays.copyOf(millis, more);
                attempts = Arrays.copyOf(attempts, more);
                reason = Arrays.copyOf(reason, more);
            }
            run[size] = inRun;
            outcome[size] = how;
            millis[size] = lasted;
            attempts[size] = (short) Math.max(-32_000, Math.min(32_000, tried));
            reason[size++] = why;
        }
    }

    private Outcomes outcomes = new Outcomes();
    private List<String> reasons = List.of();

    /** Outcomes by small numbers; those of a later version too. */
    private static final class Outcomes {
        private final List<Outcome> all = new ArrayList<>();

        private byte number(Outcome outcome) {
            int at = all.indexOf(outcome);
            if (at < 0) {
                if (all.size() > 100) return number(Outcome.ERRORED); // nobody has so many
                all.add(outcome);
                at = all.size() - 1;
            }
            return (byte) at;
        }
    }

    /** The digests of a folder, as they are read, side by side. */
    static final class Gathered {
        private final TreeMap<Integer, Packed> byFile = new TreeMap<>();

        /** A digest with its texts shared: five thousand names a run would be most of the heap. */
        private record Packed(
                RunSummary run, List<ReasonDigest> reasons, String[] keys, String[] names, TestDigest[] tests) {

            /** Of two of the same run: a run may have been remembered before it was over, or its digest been torn. */
            private Packed fuller(Packed other) {
                boolean isFuller = other.run.isComplete() && !run.isComplete() || other.tests.length > tests.length;
                return isFuller ? other : this;
            }
        }

        private final Map<String, String> shared = new java.util.concurrent.ConcurrentHashMap<>();

        void add(int file, RunDigest digest) {
            int count = digest.tests().size();
            var packed = new Packed(
                    RunSummary.of(digest),
                    digest.reasons(),
                    new String[count],
                    new String[count],
                    new TestDigest[count]);
            for (int i = 0; i < count; i++) {
                TestDigest test = digest.tests().get(i);
                packed.keys[i] = share(test.key());
                packed.names[i] = share(test.name());
                packed.tests[i] = new TestDigest(
                        packed.keys[i],
                        packed.names[i],
                        test.outcome(),
                        test.millis(),
                        test.attempts(),
                        test.recovered(),
                        test.reason() == null ? null : share(test.reason()),
                        List.of());
            }
            synchronized (byFile) {
                byFile.put(file, packed);
            }
        }

        private String share(String text) {
            String there = shared.putIfAbsent(text, text);
            return there == null ? text : there;
        }

        History history() {
            Map<List<Object>, Packed> once = new LinkedHashMap<>(); // a file may lie there under two names
            for (Packed one : byFile.values())
                once.merge(List.of(one.run.name(), one.run.started()), one, Packed::fuller);
            List<Packed> all = new ArrayList<>(once.values());
            all.sort(Comparator.comparing((Packed one) -> one.run.started()).thenComparing(one -> one.run.name()));
            Map<String, Row> rows = new LinkedHashMap<>();
            Map<String, String> titles = new LinkedHashMap<>();
            Map<String, Integer> reasonNumbers = new HashMap<>();
            var outcomes = new Outcomes();
            for (int run = 0; run < all.size(); run++) {
                Packed packed = all.get(run);
                for (ReasonDigest reason : packed.reasons) titles.put(reason.id(), reason.title());
                var moved = new MovedTests(List.of(packed.keys), rows.keySet());
                for (TestDigest test : packed.tests) {
                    String earlier = moved.earlier(test.key());
                    Row known = earlier == null ? null : rows.remove(earlier);
                    if (known != null) rows.put(test.key(), known.as(test.key()));
                    Row row = rows.computeIfAbsent(test.key(), key -> new Row(key, test.name()));
                    row.name = test.name(); // as it is called last
                    String why = test.reason();
                    int reason = why == null ? -1 : reasonNumbers.computeIfAbsent(why, id -> reasonNumbers.size());
                    row.add(
                            run,
                            outcomes.number(test.outcome()),
                            test.millis(),
                            test.recovered() ? -test.attempts() : test.attempts(),
                            reason);
                }
            }
            var history = new History(all.stream().map(Packed::run).toList(), rows, titles);
            history.outcomes = outcomes;
            history.reasons = reasonNumbers.entrySet().stream()
                    .sorted(Map.Entry.comparingByValue())
                    .map(Map.Entry::getKey)
                    .toList();
            return history;
        }
    }

    /** Of these runs, in any order. */
    public static History of(List<RunDigest> digests) {
        var gathered = new Gathered();
        for (int i = 0; i < digests.size(); i++) gathered.add(i, digests.get(i));
        return gathered.history();
    }

    /** The oldest first. */
    public List<RunSummary> runs() {
        return runs;
    }

    /** The keys of all tests, in the order in which they appeared. */
    public List<String> tests() {
        return List.copyOf(rows.keySet());
    }

    /** What became of a test, in the runs that {@code counted} accepts; empty where it is in none of them. */
    public Optional<TestHistory> test(String key, Predicate<RunSummary> counted) {
        Row row = rows.get(key);
        if (row == null) return Optional.empty();
        TestHistory history = history(row, counted);
        return history.appearances().isEmpty() ? Optional.empty() : Optional.of(history);
    }

    private TestHistory history(Row row, Predicate<RunSummary> counted) {
        List<Appearance> appearances = new ArrayList<>(row.size);
        for (int i = 0; i < row.size; i++) {
            RunSummary run = runs.get(row.run[i]);
            if (!counted.test(run)) continue;
            appearances.add(new Appearance(
                    run,
                    outcomes.all.get(row.outcome[i]),
                    Duration.ofMillis(row.millis[i]),
                    Math.abs(row.attempts[i]),
                    row.attempts[i] < 0,
                    row.reason[i] < 0 ? null : reasons.get(row.reason[i])));
        }
        return new TestHistory(row.key, row.name, appearances);
    }

    /**
     * The tests that flicker, the most flaky first: ranked by the lower Wilson bound, so that one bad night of five is not above twenty
     * of a hundred.
     *
     * @param limit how many at the most
     */
    public List<TestHistory> flaky(int limit, Predicate<RunSummary> counted) {
        record Ranked(Row row, double wilson) {}
        boolean[] isCounted = counted(counted);
        List<Ranked> ranked = new ArrayList<>();
        for (Row row : rows.values()) {
            double wilson = flakiness(row, isCounted);
            if (wilson > 0) ranked.add(new Ranked(row, wilson));
        }
        ranked.sort(Comparator.comparingDouble((Ranked one) -> -one.wilson).thenComparing(one -> one.row.key));
        List<TestHistory> flaky = new ArrayList<>();
        for (Ranked one : ranked) {
            if (flaky.size() == limit) break;
            TestHistory test = history(one.row, counted);
            if (test.flakiness().isFlaky()) flaky.add(test);
        }
        return flaky;
    }

    private boolean[] counted(Predicate<RunSummary> counted) {
        boolean[] isCounted = new boolean[runs.size()];
        for (int i = 0; i < isCounted.length; i++) isCounted[i] = counted.test(runs.get(i));
        return isCounted;
    }

    /** Its Wilson bound; 0 for the many that only ever pass. */
    private double flakiness(Row row, boolean[] isCounted) {
        var count = new Flakiness.Count();
        for (int i = 0; i < row.size; i++) {
            if (!isCounted[row.run[i]]) continue;
            Outcome outcome = outcomes.all.get(row.outcome[i]);
            count.add(outcome.needsAttention(), outcome.equals(Outcome.PASSED), row.attempts[i] < 0);
        }
        return count.flickers() == 0 ? 0 : Flakiness.wilson(count.flickers(), count.runs());
    }

    /**
     * The tests that take longer than they did, those that lost most time first.
     *
     * @param limit how many at the most
     */
    public List<TestHistory> slower(int limit, Predicate<RunSummary> counted) {
        record Ranked(TestHistory test, DurationStep step) {}
        return rows.values().stream()
                .map(row -> history(row, counted))
                .flatMap(test -> test.durationStep().stream().map(step -> new Ranked(test, step)))
                .filter(ranked -> ranked.step.factor() > 1)
                .sorted(Comparator.comparingDouble(
                                (Ranked ranked) -> -(ranked.step.after().toMillis()
                                        - ranked.step.before().toMillis()))
                        .thenComparing(ranked -> ranked.test.key()))
                .limit(limit)
                .map(Ranked::test)
                .toList();
    }

    /** The reasons that tests failed for, the last seen first, then those in most runs. */
    public List<ReasonHistory> reasons(Predicate<RunSummary> counted) {
        int[] first = new int[reasons.size()];
        int[] last = new int[reasons.size()];
        int[] tests = new int[reasons.size()];
        Arrays.fill(first, -1);
        List<java.util.BitSet> in = new ArrayList<>();
        for (int i = 0; i < reasons.size(); i++) in.add(new java.util.BitSet());
        boolean[] isCounted = counted(counted);
        for (Row row : rows.values())
            for (int i = 0; i < row.size; i++) {
                int reason = row.reason[i];
                int run = row.run[i];
                if (reason < 0 || !isCounted[run]) continue;
                if (in.get(reason).isEmpty()) first[reason] = last[reason] = run;
                first[reason] = Math.min(first[reason], run);
                last[reason] = Math.max(last[reason], run);
                in.get(reason).set(run);
                tests[reason]++;
            }
        List<ReasonHistory> all = new ArrayList<>();
        for (int i = 0; i < reasons.size(); i++) {
            if (first[i] < 0) continue;
            int stretch = 0;
            RunSummary since = null;
            for (int run = isCounted.length - 1; run >= 0; run--) {
                if (!isCounted[run]) continue;
                if (!in.get(i).get(run)) break;
                stretch++;
                since = runs.get(run);
            }
            all.add(new ReasonHistory(
                    reasons.get(i),
                    titles.getOrDefault(reasons.get(i), ""),
                    runs.get(first[i]),
                    runs.get(last[i]),
                    in.get(i).cardinality(),
                    tests[i],
                    since,
                    stretch));
        }
        all.sort(Comparator.comparing((ReasonHistory reason) -> reason.last().started())
                .thenComparing(ReasonHistory::runs)
                .reversed()
                .thenComparing(ReasonHistory::id));
        return all;
    }

    /** What became of a reason; empty where no run has it. */
    public Optional<ReasonHistory> reason(String id, Predicate<RunSummary> counted) {
        return reasons(counted).stream()
                .filter(reason -> reason.id().equals(id))
                .findFirst();
    }
}
