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
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;

/**
 * Many runs, in the order of their times. Holds some twelve bytes a test and run, however long the texts are.
 *
 * @since 0.2.0
 */
public final class History {

    private final Rows rows;
    /** Which of all runs count, and their numbers among those that do; -1 for the others. */
    private final int[] numbers;

    private final List<RunSummary> runs;
    private @Nullable Judgement judgement;

    private History(Rows rows, int[] numbers, List<RunSummary> runs) {
        this.rows = rows;
        this.numbers = numbers;
        this.runs = List.copyOf(runs);
    }

    /** All that is remembered. */
    private static final class Rows {
        private final List<RunSummary> runs;
        private final Map<String, Row> byKey;
        private final Map<String, String> titles;
        private final Outcomes outcomes;
        private final List<String> reasons;

        private Rows(
                List<RunSummary> runs,
                Map<String, Row> byKey,
                Map<String, String> titles,
                Outcomes outcomes,
                List<String> reasons) {
            this.runs = runs;
            this.byKey = byKey;
            this.titles = titles;
            this.outcomes = outcomes;
            this.reasons = reasons;
        }
    }

    /** What the runs that count say of the tests in them, each at the same place in all lists. */
    private static final class Judgement {
        private final List<Row> rows = new ArrayList<>();
        private final Map<String, Integer> places = new HashMap<>();
        private List<Disturbance> disturbances = List.of();
        private List<Trials> trials = List.of();
        private Flakiness[] flakiness = new Flakiness[0];
        private List<@Nullable DurationStep> steps = List.of();
    }

    /** Of the runs that {@code counted} accepts. */
    public History only(Predicate<RunSummary> counted) {
        int[] some = new int[rows.runs.size()];
        List<RunSummary> kept = new ArrayList<>();
        for (int i = 0; i < some.length; i++) {
            boolean is = numbers[i] >= 0 && counted.test(rows.runs.get(i));
            some[i] = is ? kept.size() : -1;
            if (is) kept.add(rows.runs.get(i));
        }
        return new History(rows, some, kept);
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
        private short[] worker = new short[8]; // a number in its run, or -1

        private Row(String key, String name) {
            this.key = key;
            this.name = name;
        }

        private Row as(String other) {
            key = other;
            return this;
        }

        /** What it has of the runs whose number is {@code first} or more, counted from that. */
        private Row only(int[] numbers, int first) {
            var some = new Row(key, name);
            for (int i = 0; i < size; i++) {
                int number = numbers[run[i]];
                if (number >= first) some.add(number - first, outcome[i], millis[i], attempts[i], reason[i], worker[i]);
            }
            return some;
        }

        private void add(int inRun, Outcomes outcomes, TestDigest test, Map<String, Integer> reasons) {
            String why = test.reason();
            add(
                    inRun,
                    outcomes.number(test.outcome()),
                    test.millis(),
                    test.recovered() ? -test.attempts() : test.attempts(),
                    why == null ? -1 : reasons.computeIfAbsent(why, id -> reasons.size()),
                    (short) Math.min(Short.MAX_VALUE, test.origin().worker()));
        }

        private void add(int inRun, byte how, int lasted, int tried, int why, short where) {
            if (size == run.length) {
                int more = size * 2;
                run = Arrays.copyOf(run, more);
                outcome = Arrays.copyOf(outcome, more);
                millis = Arrays.copyOf(millis, more);
                attempts = Arrays.copyOf(attempts, more);
                reason = Arrays.copyOf(reason, more);
                worker = Arrays.copyOf(worker, more);
            }
            run[size] = inRun;
            outcome[size] = how;
            millis[size] = lasted;
            attempts[size] = (short) Math.max(-32_000, Math.min(32_000, tried));
            worker[size] = where;
            reason[size++] = why;
        }
    }

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
                        List.of(),
                        TestDigest.Origin.UNKNOWN.on(test.origin().worker()));
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
                    row.add(run, outcomes, test, reasonNumbers);
                }
            }
            List<String> ids = reasonNumbers.entrySet().stream()
                    .sorted(Map.Entry.comparingByValue())
                    .map(Map.Entry::getKey)
                    .toList();
            List<RunSummary> runs = all.stream().map(Packed::run).toList();
            int[] numbers = new int[runs.size()];
            Arrays.setAll(numbers, i -> i);
            return new History(new Rows(runs, rows, titles, outcomes, ids), numbers, runs);
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

    /** The newest of these runs, and {@code digest} behind them, whenever it began: what it means is judged by them. */
    public History with(RunDigest digest) {
        int first = Math.max(0, runs.size() - StabilityModel.MAX_TRIALS);
        List<RunSummary> newest = new ArrayList<>(runs.subList(first, runs.size()));
        newest.add(RunSummary.of(digest));
        Map<String, Row> byKey = new LinkedHashMap<>();
        for (Row row : rows.byKey.values()) {
            Row some = row.only(numbers, first);
            if (some.size > 0) byKey.put(row.key, some);
        }
        var reasons = new ArrayList<>(rows.reasons);
        Map<String, Integer> known = new HashMap<>();
        for (String reason : reasons) known.put(reason, known.size());
        Map<String, String> titles = new HashMap<>(rows.titles);
        for (ReasonDigest reason : digest.reasons()) {
            titles.put(reason.id(), reason.title());
            if (known.putIfAbsent(reason.id(), known.size()) == null) reasons.add(reason.id());
        }
        var moved = new MovedTests(digest.tests().stream().map(TestDigest::key).toList(), Set.copyOf(byKey.keySet()));
        for (TestDigest test : digest.tests()) {
            String earlier = moved.earlier(test.key());
            Row before = earlier == null ? null : byKey.remove(earlier);
            if (before != null) byKey.put(test.key(), before.as(test.key()));
            byKey.computeIfAbsent(test.key(), key -> new Row(key, test.name()))
                    .add(newest.size() - 1, rows.outcomes, test, known);
        }
        int[] all = new int[newest.size()];
        Arrays.setAll(all, i -> i);
        return new History(new Rows(newest, byKey, titles, rows.outcomes, reasons), all, newest);
    }

    /** How flaky a test is; of one that is in none of these runs nothing is known. */
    public Flakiness flakiness(String key) {
        Judgement judged = judgement();
        int place = judged.places.getOrDefault(key, -1);
        return place < 0 ? Flakiness.STEADY : judged.flakiness[place];
    }

    /** Whether a test failed in the newest run together with many others, see {@link Disturbance}. */
    public boolean failedTogether(String key) {
        Judgement judged = judgement();
        int place = judged.places.getOrDefault(key, -1);
        return place >= 0 && judged.trials.get(place).isSharedIn(runs.size() - 1);
    }

    /** The keys of the tests in these runs, in the order in which they appeared. */
    public List<String> tests() {
        return rows.byKey.values().stream()
                .filter(this::isIn)
                .map(row -> row.key)
                .toList();
    }

    private boolean isIn(Row row) {
        for (int i = 0; i < row.size; i++) if (numbers[row.run[i]] >= 0) return true;
        return false;
    }

    /** What became of a test; empty where it is in none of these runs. */
    public Optional<TestHistory> test(String key) {
        Row row = rows.byKey.get(key);
        return row == null || !isIn(row) ? Optional.empty() : Optional.of(history(row, judgement()));
    }

    private TestHistory history(Row row, Judgement judged) {
        List<Appearance> appearances = new ArrayList<>(row.size);
        for (int i = 0; i < row.size; i++) {
            if (numbers[row.run[i]] < 0) continue;
            appearances.add(new Appearance(
                    rows.runs.get(row.run[i]),
                    rows.outcomes.all.get(row.outcome[i]),
                    Duration.ofMillis(row.millis[i]),
                    Math.abs(row.attempts[i]),
                    row.attempts[i] < 0,
                    row.reason[i] < 0 ? null : rows.reasons.get(row.reason[i])));
        }
        int place = judged.places.getOrDefault(row.key, -1);
        return new TestHistory(
                row.key,
                row.name,
                appearances,
                place < 0 ? Flakiness.STEADY : judged.flakiness[place],
                place < 0 ? null : judged.steps.get(place));
    }

    /** Made once, when it is asked for. */
    private synchronized Judgement judgement() {
        Judgement made = judgement;
        if (made != null) return made;
        made = new Judgement();
        List<Trials> trials = new ArrayList<>();
        List<Durations> durations = new ArrayList<>();
        for (Row row : rows.byKey.values()) {
            if (!isIn(row)) continue;
            made.places.put(row.key, made.rows.size());
            made.rows.add(row);
            trials.add(trials(row));
            durations.add(durations(row));
        }
        made.trials = trials;
        made.disturbances = SharedFailures.mark(runs, trials, rows.reasons);
        made.flakiness = StabilityModel.of(trials);
        made.steps = DurationStep.of(runs, durations);
        judgement = made;
        return made;
    }

    private Trials trials(Row row) {
        int[] run = new int[row.size];
        byte[] failed = new byte[row.size];
        boolean[] passed = new boolean[row.size];
        int[] reason = new int[row.size];
        int size = 0;
        for (int i = 0; i < row.size; i++) {
            int number = numbers[row.run[i]];
            Outcome outcome = rows.outcomes.all.get(row.outcome[i]);
            boolean fails = outcome.needsAttention();
            if (number < 0 || !fails && !outcome.equals(Outcome.PASSED)) continue;
            run[size] = number;
            int attempts = Math.min(100, Math.abs(row.attempts[i]));
            failed[size] = (byte) (fails ? attempts : row.attempts[i] < 0 ? attempts - 1 : 0);
            passed[size] = !fails;
            reason[size++] = row.reason[i];
        }
        return new Trials(
                Arrays.copyOf(run, size),
                Arrays.copyOf(failed, size),
                Arrays.copyOf(passed, size),
                Arrays.copyOf(reason, size),
                new boolean[size]);
    }

    /** What a test took in the newest {@code most} runs, their numbers counted from the first of these; null where it is in none. */
    @Nullable
    Durations durations(String key, int most) {
        Row row = rows.byKey.get(key);
        if (row == null) return null;
        int first = runs.size() - most;
        Durations some = durations(row).from(first);
        int[] run = Arrays.stream(some.run()).map(one -> one - first).toArray();
        return run.length == 0 ? null : new Durations(run, some.worker(), some.logMillis());
    }

    private Durations durations(Row row) {
        int[] run = new int[row.size];
        int[] worker = new int[row.size];
        double[] logs = new double[row.size];
        int size = 0;
        for (int i = 0; i < row.size; i++) {
            int number = numbers[row.run[i]];
            boolean counts = rows.outcomes.all.get(row.outcome[i]).equals(Outcome.PASSED) && row.attempts[i] > 0;
            if (number < 0 || !counts || number < runs.size() - DurationStep.MAX_RUNS) continue;
            run[size] = number;
            worker[size] = row.worker[i];
            logs[size++] = Math.log(Math.max(1, row.millis[i]));
        }
        return new Durations(Arrays.copyOf(run, size), Arrays.copyOf(worker, size), Arrays.copyOf(logs, size));
    }

    /**
     * The tests that fail now and then and are not broken, those that surely fail most first.
     *
     * @param limit how many at the most
     */
    public List<TestHistory> flaky(int limit) {
        Judgement judged = judgement();
        return judged.rows.stream()
                .filter(row -> flakiness(judged, row).isFlaky())
                .sorted(Comparator.comparingDouble(
                                (Row row) -> -flakiness(judged, row).low())
                        .thenComparing(row -> row.key))
                .limit(limit)
                .map(row -> history(row, judged))
                .toList();
    }

    private static Flakiness flakiness(Judgement judged, Row row) {
        return judged.flakiness[judged.places.getOrDefault(row.key, 0)];
    }

    /** Runs that were not themselves, the oldest first. */
    public List<Disturbance> disturbances() {
        return judgement().disturbances;
    }

    /**
     * The tests that take longer than they did, those that lost most time first.
     *
     * @param limit how many at the most
     */
    public List<TestHistory> slower(int limit) {
        record Ranked(Row row, DurationStep step) {
            long lost() {
                return step.after().minus(step.before()).toMillis();
            }
        }
        Judgement judged = judgement();
        List<Ranked> ranked = new ArrayList<>();
        for (int i = 0; i < judged.rows.size(); i++) {
            DurationStep step = judged.steps.get(i);
            if (step != null && step.factor() > 1) ranked.add(new Ranked(judged.rows.get(i), step));
        }
        return ranked.stream()
                .sorted(Comparator.comparingLong((Ranked one) -> -one.lost()).thenComparing(one -> one.row().key))
                .limit(limit)
                .map(one -> history(one.row(), judged))
                .toList();
    }

    /** The reasons that tests failed for, the last seen first, then those in most runs. */
    public List<ReasonHistory> reasons() {
        List<String> reasons = rows.reasons;
        int[] first = new int[reasons.size()];
        int[] last = new int[reasons.size()];
        int[] tests = new int[reasons.size()];
        Arrays.fill(first, -1);
        List<java.util.BitSet> in = new ArrayList<>();
        for (int i = 0; i < reasons.size(); i++) in.add(new java.util.BitSet());
        for (Row row : rows.byKey.values())
            for (int i = 0; i < row.size; i++) {
                int reason = row.reason[i];
                int run = numbers[row.run[i]];
                if (reason < 0 || run < 0) continue;
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
            for (int run = runs.size() - 1; run >= 0 && in.get(i).get(run); run--) stretch++;
            all.add(new ReasonHistory(
                    reasons.get(i),
                    rows.titles.getOrDefault(reasons.get(i), ""),
                    runs.get(first[i]),
                    runs.get(last[i]),
                    in.get(i).cardinality(),
                    tests[i],
                    stretch == 0 ? null : runs.get(runs.size() - stretch),
                    stretch));
        }
        all.sort(Comparator.comparing((ReasonHistory reason) -> reason.last().started())
                .thenComparing(ReasonHistory::runs)
                .reversed()
                .thenComparing(ReasonHistory::id));
        return all;
    }

    /** The title of a reason, as the newest run that has it says it; empty for null, and where no run has it. */
    public String titleOf(@Nullable String reason) {
        return reason == null ? "" : rows.titles.getOrDefault(reason, "");
    }

    /** What became of a reason; empty where no run has it. */
    public Optional<ReasonHistory> reason(String id) {
        return reasons().stream().filter(reason -> reason.id().equals(id)).findFirst();
    }
}
