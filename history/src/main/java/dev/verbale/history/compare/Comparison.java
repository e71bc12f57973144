package dev.verbale.history.compare;

import dev.verbale.history.History;
import dev.verbale.history.digest.MovedTests;
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
        List<String> newlyBroken,
        List<ReasonDigest> newReasons,
        List<ReasonDigest> goneReasons) {

    /**
     * A test in both.
     *
     * @param before null where it was not there
     */
    public record Change(@Nullable TestDigest before, TestDigest after) {

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
        var usual = new UsualDuration(noise, after.started());
        var gathered = new Gathered();
        var moved = new MovedTests(after.tests().stream().map(TestDigest::key).toList(), Set.copyOf(earlier.keySet()));
        for (TestDigest test : after.tests()) {
            String key = moved.earlier(test.key());
            gathered.add(earlier.remove(key == null ? test.key() : key), test, usual);
        }
        Comparator<Change> byTime = Comparator.comparingInt(change -> -Math.abs(change.moreMillis()));
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
                after.broken().stream()
                        .filter(key -> !before.broken().contains(key))
                        .toList(),
                only(after.reasons(), before.reasons()),
                only(before.reasons(), after.reasons()));
    }

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

        private void add(@Nullable TestDigest before, TestDigest after, UsualDuration usual) {
            var change = new Change(before, after);
            boolean fails = after.outcome().needsAttention();
            boolean failed = before != null && before.outcome().needsAttention();
            if (fails && failed) stillFailing.add(change);
            else if (fails) newFailures.add(change);
            else if (before == null) added.add(after);
            else if (failed && after.outcome().equals(Outcome.PASSED)) fixed.add(change);
            if (before == null || fails || failed) return;
            int sign = usual.compare(before, after);
            if (sign > 0) slower.add(change);
            if (sign < 0) faster.add(change);
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

    /** Whether nothing is worse than it was. */
    public boolean isNoWorse() {
        return newFailures.isEmpty() && newlyBroken.isEmpty();
    }

    /** Such as {@code 2 new failures, 1 fixed, 3 still failing, 4 slower.} */
    public String sentence() {
        List<String> parts = new ArrayList<>();
        part(parts, newFailures.size(), "new failure", "new failures");
        part(parts, newlyBroken.size(), "class newly broken", "classes newly broken");
        part(parts, fixed.size(), "fixed", "fixed");
        part(parts, stillFailing.size(), "still failing", "still failing");
        part(parts, added.size(), "new test", "new tests");
        if (isOfAPart() || !after.isComplete()) part(parts, vanished.size(), "test not run", "tests not run");
        else part(parts, vanished.size(), "test vanished", "tests vanished");
        part(parts, slower.size(), "slower", "slower");
        part(parts, faster.size(), "faster", "faster");
        return parts.isEmpty() ? "All tests went as they did." : String.join(", ", parts) + ".";
    }

    private static void part(List<String> parts, int count, String one, String many) {
        if (count > 0) parts.add(String.format(java.util.Locale.ROOT, "%,d %s", count, count == 1 ? one : many));
    }
}
