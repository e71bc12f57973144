package dev.verbale.history.compare;

import dev.verbale.history.Disturbance;
import dev.verbale.history.Flakiness;
import dev.verbale.history.History;
import dev.verbale.history.UnusualDurations;
import dev.verbale.history.digest.MovedTests;
import dev.verbale.history.digest.RenamedTests;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * A run beside an earlier one. Each test of either is in exactly one of the lists of tests, or went as it did; slower and faster ones are
 * named besides.
 *
 * @param baseline the earlier one, and why it is that one
 * @param after the one that is judged
 * @param newFailures tests that need attention and did not before, those that were not there among them: what is <i>new</i>, wherever it
 *     is said
 * @param stillFailing tests that needed attention before too
 * @param fixed tests that needed attention and passed now
 * @param added tests that only the later run has, and that need no attention
 * @param vanished tests that only the earlier run has, see {@link #isOfAPart}
 * @param slower tests that took longer than noise explains, those that lost most time first
 * @param faster tests that took less time than noise explains, those that won most time first
 * @param renamed tests that were called otherwise before, see {@link RenamedTests}
 * @param speed how many times as slow as usual, or as the baseline, the whole run was, such as 1.6: what a test took counts without that
 * @param newlyBroken the keys of classes that broke outside their tests and did not before: they are new failures too
 * @param newReasons reasons that only the later run has
 * @param goneReasons reasons that only the earlier run has
 * @since 0.2.0
 */
public record Comparison(
        Baseline baseline,
        RunDigest after,
        List<Change> newFailures,
        List<Change> stillFailing,
        List<Change> fixed,
        List<TestDigest> added,
        List<TestDigest> vanished,
        List<Change> slower,
        List<Change> faster,
        List<Change> renamed,
        double speed,
        List<String> newlyBroken,
        List<ReasonDigest> newReasons,
        List<ReasonDigest> goneReasons) {

    /**
     * A test in both.
     *
     * @param before null where it was not there
     * @param flakiness how flaky it was in the runs before; with this one, where only that tells it from one that broke
     * @param failedTogether whether it is a new failure together with many others, for one reason, see {@link Disturbance}
     */
    public record Change(@Nullable TestDigest before, TestDigest after, Flakiness flakiness, boolean failedTogether) {

        /** Of a test of whose past nothing is known. */
        public Change(@Nullable TestDigest before, TestDigest after) {
            this(before, after, Flakiness.STEADY, false);
        }

        /** Whether it is a test that fails now and then anyway, and was not broken. */
        public boolean isOfFlaky() {
            return !failedTogether && flakiness.isFlaky() && flakiness.brokenProbability() < 0.5;
        }

        /** Whether it fails for another reason than it did. */
        public boolean hasOtherReason() {
            return before != null
                    && before.reason() != null
                    && after.reason() != null
                    && !before.reason().equals(after.reason());
        }

        /** By how much longer it took; negative where it took less. */
        public int moreMillis() {
            return before == null ? 0 : after.millis() - before.millis();
        }
    }

    /**
     * @param noise what is known of the tests' times, or null: then only large differences count
     */
    public static Comparison of(Baseline baseline, RunDigest after, @Nullable History noise) {
        RunDigest before = baseline.run();
        Map<String, TestDigest> earlier = new LinkedHashMap<>();
        for (TestDigest test : before.tests()) earlier.put(test.key(), test);
        var gathered = new Gathered();
        var moved = new MovedTests(after.tests().stream().map(TestDigest::key).toList(), Set.copyOf(earlier.keySet()));
        boolean isWhole = before.part().isEmpty() && after.part().isEmpty() && after.isComplete();
        RenamedTests called = isWhole
                ? new RenamedTests(after.tests().stream().map(TestDigest::key).toList(), Set.copyOf(earlier.keySet()))
                : null;
        Map<String, TestDigest> pairs = new HashMap<>();
        for (TestDigest test : after.tests()) {
            String key = moved.earlier(test.key());
            if (key == null && called != null) key = called.earlier(test.key());
            TestDigest then = earlier.remove(key == null ? test.key() : key);
            if (then != null && called != null && called.earlier(test.key()) != null)
                gathered.renamed.add(new Change(then, test));
            if (then != null) pairs.put(test.key(), then);
            gathered.add(then, test);
        }
        History past = noise == null ? null : noise.only(run -> run.started().isBefore(after.started()));
        var unusual = UnusualDurations.of(pairs, after, past);
        gathered.addUnusual(unusual);
        Comparator<Change> byTime = Comparator.comparingInt(change -> -Math.abs(change.moreMillis()));
        gathered.judge(before, after, past);
        gathered.slower.sort(byTime);
        gathered.faster.sort(byTime);
        return new Comparison(
                baseline,
                after,
                List.copyOf(gathered.newFailures),
                List.copyOf(gathered.stillFailing),
                List.copyOf(gathered.fixed),
                List.copyOf(gathered.added),
                List.copyOf(earlier.values()),
                List.copyOf(gathered.slower),
                List.copyOf(gathered.faster),
                List.copyOf(gathered.renamed),
                unusual.speed(),
                after.broken().stream()
                        .filter(key -> !before.broken().contains(key))
                        .toList(),
                only(after.reasons(), before.reasons()),
                only(before.reasons(), after.reasons()));
    }

    private static final double LEAST_SPEED = 1.25;
    private static final Pattern NUMBER = Pattern.compile("[0-9a-fA-F-]{8,}|\\d+");

    /** With a run that somebody named. */
    public static Comparison of(RunDigest before, RunDigest after, @Nullable History noise) {
        return of(new Baseline(before, ""), after, noise);
    }

    private static final class Gathered {
        private final List<Change> newFailures = new ArrayList<>();
        private final List<Change> stillFailing = new ArrayList<>();
        private final List<Change> fixed = new ArrayList<>();
        private final List<TestDigest> added = new ArrayList<>();
        private final List<Change> slower = new ArrayList<>();
        private final List<Change> faster = new ArrayList<>();
        private final List<Change> renamed = new ArrayList<>();

        /** So many of one reason belong together; several reasons in one run are as many things to look at. */
        private static final int LEAST_TOGETHER = 4;

        /** Of all that are named flaky one in twenty may be none; here each is judged by itself. */
        private static final double SURE = 0.8;

        private final Map<String, Change> changes = new HashMap<>();

        /** What the runs before say of the new failures. */
        private void judge(RunDigest before, RunDigest after, @Nullable History runs) {
            if (runs == null || newFailures.isEmpty()) return;
            History branch = runs.only(
                    run -> run.branch().equals(after.branch()) || run.branch().equals(before.branch()));
            if (branch.runs().isEmpty()) return;
            History now = branch.with(after);
            Map<String, Integer> sizes = new HashMap<>();
            for (Change change : newFailures)
                if (change.after().reason() != null) sizes.merge(change.after().reason(), 1, Integer::sum);
            newFailures.replaceAll(change -> {
                TestDigest then = change.before() == null ? change.after() : change.before();
                boolean together = sizes.getOrDefault(change.after().reason(), 0) >= LEAST_TOGETHER
                        && now.failedTogether(change.after().key());
                Flakiness past = branch.flakiness(then.key());
                Flakiness present = now.flakiness(change.after().key());
                // One that failed once or twice before may be told from a broken one by failing again.
                Flakiness known = past.isFlaky() || present.probability() < SURE ? past : present;
                return new Change(change.before(), change.after(), known, together);
            });
        }

        private void addUnusual(UnusualDurations unusual) {
            unusual.slower().forEach(key -> slower.add(Objects.requireNonNull(changes.get(key))));
            unusual.faster().forEach(key -> faster.add(Objects.requireNonNull(changes.get(key))));
        }

        private void add(@Nullable TestDigest before, TestDigest after) {
            var change = new Change(before, after);
            changes.put(after.key(), change);
            boolean fails = after.outcome().needsAttention();
            boolean failed = before != null && before.outcome().needsAttention();
            if (fails && failed) stillFailing.add(change);
            else if (fails) newFailures.add(change);
            else if (before == null) added.add(after);
            else if (failed && after.outcome().equals(Outcome.PASSED)) fixed.add(change);
        }
    }

    private static List<ReasonDigest> only(List<ReasonDigest> in, List<ReasonDigest> notIn) {
        Set<String> there = new LinkedHashSet<>();
        for (ReasonDigest reason : notIn) there.add(reason.id());
        return in.stream().filter(reason -> !there.contains(reason.id())).toList();
    }

    /** The earlier one. */
    public RunDigest before() {
        return baseline.run();
    }

    /**
     * The tests of the later one that were not there before, while others vanished whose names differ from theirs in a number only: names
     * that are made of an id or a time are other tests in each run, and nobody can tell what became of them.
     */
    public List<TestDigest> renumbered() {
        Set<String> gone = new HashSet<>();
        for (TestDigest test : vanished) gone.add(withoutNumbers(test.key()));
        List<TestDigest> renumbered = new ArrayList<>();
        for (TestDigest test : added) if (gone.contains(withoutNumbers(test.key()))) renumbered.add(test);
        for (Change change : newFailures)
            if (change.before() == null
                    && gone.contains(withoutNumbers(change.after().key()))) renumbered.add(change.after());
        return renumbered;
    }

    private static String withoutNumbers(String key) {
        return NUMBER.matcher(key).replaceAll("0");
    }

    /** Whether the later one was not meant to run all that the earlier one ran: then what it does not have has not vanished. */
    public boolean isOfAPart() {
        return !after.part().isEmpty() && !after.part().equals(before().part());
    }

    /** The title of a reason of either run; empty where there is none. */
    public String titleOf(@Nullable String reason) {
        if (reason == null) return "";
        Map<String, String> titles = new HashMap<>();
        for (ReasonDigest one : before().reasons()) titles.put(one.id(), one.title());
        for (ReasonDigest one : after.reasons()) titles.put(one.id(), one.title());
        return titles.getOrDefault(reason, "");
    }

    /** The new failures of tests that are not flaky, and that did not fail together with many others. */
    public List<Change> newOfSteady() {
        return newFailures.stream()
                .filter(change -> !change.failedTogether() && !change.isOfFlaky())
                .toList();
    }

    /** The new failures of tests that fail now and then anyway. */
    public List<Change> newOfFlaky() {
        return newFailures.stream().filter(Change::isOfFlaky).toList();
    }

    /** The new failures that belong together, see {@link Disturbance}: the run was not itself. */
    public List<Change> newTogether() {
        return newFailures.stream().filter(Change::failedTogether).toList();
    }

    /** Whether nothing is worse than it was. */
    public boolean isNoWorse() {
        return newFailures.isEmpty() && newlyBroken.isEmpty();
    }

    /** Such as {@code 2 new failures, 1 fixed, 3 still failing, 4 slower.} */
    public String sentence() {
        List<String> parts = new ArrayList<>();
        part(parts, newFailures.size(), "new failure", "new failures");
        part(parts, newOfFlaky().size(), "of them of a flaky test", "of them of flaky tests");
        part(parts, newTogether().size(), "of them together", "of them together");
        part(parts, newlyBroken.size(), "class newly broken", "classes newly broken");
        part(parts, fixed.size(), "fixed", "fixed");
        part(parts, stillFailing.size(), "still failing", "still failing");
        part(parts, added.size(), "new test", "new tests");
        if (isOfAPart() || !after.isComplete()) part(parts, vanished.size(), "test not run", "tests not run");
        else part(parts, vanished.size(), "test vanished", "tests vanished");
        part(parts, renamed.size(), "renamed", "renamed");
        part(parts, slower.size(), "slower", "slower");
        part(parts, faster.size(), "faster", "faster");
        String whole = speedSentence();
        return (parts.isEmpty() ? "All tests went as they did." : String.join(", ", parts) + ".")
                + (whole.isEmpty() ? "" : " " + whole);
    }

    /** Such as {@code The whole run was 1.6 times as slow as usual.}; empty where it was about as fast. */
    public String speedSentence() {
        if (speed >= LEAST_SPEED)
            return String.format(java.util.Locale.ROOT, "The whole run was %.1f times as slow as usual.", speed);
        if (speed <= 1 / LEAST_SPEED)
            return String.format(java.util.Locale.ROOT, "The whole run was %.1f times as fast as usual.", 1 / speed);
        return "";
    }

    private static void part(List<String> parts, int count, String one, String many) {
        if (count > 0) parts.add(String.format(java.util.Locale.ROOT, "%,d %s", count, count == 1 ? one : many));
    }
}
