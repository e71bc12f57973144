package dev.verbale.rules;

import dev.verbale.history.compare.Comparison;
import dev.verbale.history.compare.Comparison.Change;
import dev.verbale.results.Counts;
import dev.verbale.results.Incomplete;
import dev.verbale.results.Run;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/**
 * Whether a run is good enough.
 *
 * @param reasons why it is not, a sentence each; empty where it is
 * @param exceptions what did not count, a sentence each
 * @since 0.2.0
 */
public record Verdict(List<String> reasons, List<String> exceptions) {

    public Verdict {
        reasons = List.copyOf(reasons);
        exceptions = List.copyOf(exceptions);
    }

    /** Whether the gate is open. */
    public boolean passes() {
        return reasons.isEmpty();
    }

    /**
     * @param comparison with the baseline; null where there is none: then what the rules ask of it counts as if all failures were new
     */
    public static Verdict of(GateRules rules, Run run, Triage triage, @Nullable Comparison comparison) {
        List<String> reasons = new ArrayList<>();
        List<Change> excepted = comparison == null
                ? List.of()
                : comparison.newFailures().stream().filter(rules::excepts).toList();
        Counts counts = run.counts();
        int failing = counts.failing();
        int broken = counts.broken();
        failures(reasons, rules.failures(), failing, broken, "needs attention", "need attention");
        if (comparison == null)
            failures(
                    reasons,
                    rules.newFailures(),
                    failing,
                    broken,
                    "fails, and there is no baseline",
                    "fail, and there is no baseline");
        else
            failures(
                    reasons,
                    rules.newFailures(),
                    comparison.newFailures().size() - excepted.size(),
                    comparison.newlyBroken().size(),
                    "fails and did not before",
                    "fail and did not before");
        limit(reasons, rules.unlabelled(), triage.unlabelled(), "fails and has no label", "fail and have no label");
        limit(
                reasons,
                rules.expired(),
                triage.expired(),
                "fails and was known only until a day that is over",
                "fail and were known only until a day that is over");
        limit(
                reasons,
                rules.flaky(),
                counts.flaky(),
                "passed only on a later attempt",
                "passed only on a later attempt");
        if (comparison != null)
            limit(
                    reasons,
                    rules.slower(),
                    comparison.slower().size(),
                    "is slower than noise explains",
                    "are slower than noise explains");
        Integer least = rules.minTests();
        int all = counts.all();
        if (least != null && all < least) reasons.add(tests(all) + " ran, and at least " + number(least) + " must.");
        if (comparison == null && rules.vanished() != null)
            reasons.add("Which tests vanished is not known: there is no baseline. The next run has this one.");
        if (comparison != null)
            limit(
                    reasons,
                    rules.vanished(),
                    comparison.vanished().size(),
                    "of the baseline is not there",
                    "of the baseline are not there");
        whole(reasons, rules, run.incomplete());
        return new Verdict(reasons, exceptions(excepted));
    }

    private static List<String> exceptions(List<Change> excepted) {
        List<String> exceptions = new ArrayList<>();
        for (Change change : excepted)
            exceptions.add("Not counted as new: " + change.after().name() + ", which "
                    + change.flakiness().sentence() + " anyway.");
        return exceptions;
    }

    /** What a run does not hold may have failed. */
    private static void whole(List<String> reasons, GateRules rules, Incomplete incomplete) {
        int unclosed = incomplete.notClosed().size();
        if (unclosed > rules.unclosed())
            reasons.add(number(unclosed) + (unclosed == 1 ? " journal has" : " journals have")
                    + " no end: what came after is not known. " + incomplete.sentence());
        else if (incomplete.absentShards().size() > rules.shards())
            reasons.add("A part is not there. " + incomplete.sentence());
        else if (incomplete.missing() + (incomplete.unrecorded().isEmpty() ? 0 : 1) > rules.missing())
            reasons.add("Something is missing that could not be recorded. " + incomplete.sentence());
    }

    /** Tests, and classes that broke outside them: nobody knows how their tests would have gone. */
    private static void failures(
            List<String> reasons, @Nullable Integer allowed, int tests, int classes, String one, String many) {
        if (classes == 0) {
            limit(reasons, allowed, tests, one, many);
            return;
        }
        if (allowed == null || tests + classes <= allowed) return;
        String what = number(classes) + (classes == 1 ? " class" : " classes");
        reasons.add((tests == 0 ? what : tests(tests) + " and " + what) + " " + (tests + classes == 1 ? one : many)
                + allowed(allowed));
    }

    private static void limit(List<String> reasons, @Nullable Integer allowed, int count, String one, String many) {
        if (allowed == null || count <= allowed) return;
        reasons.add(tests(count) + " " + (count == 1 ? one : many) + allowed(allowed));
    }

    private static String allowed(int allowed) {
        if (allowed == 0) return ".";
        return ", and " + number(allowed) + (allowed == 1 ? " is allowed." : " are allowed.");
    }

    private static String tests(int count) {
        return number(count) + (count == 1 ? " test" : " tests");
    }

    private static String number(long count) {
        return String.format(Locale.ROOT, "%,d", count);
    }
}
