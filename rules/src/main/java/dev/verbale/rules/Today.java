package dev.verbale.rules;

import dev.verbale.history.Flakiness;
import dev.verbale.history.History;
import dev.verbale.history.RunSummary;
import dev.verbale.history.TestHistory;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.compare.Comparison.Change;
import dev.verbale.history.compare.FirstDifference;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.rules.Triage.Labelled;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Where a suite stands: what is new since a run, whose it is, what is known or flaky, and whether it may ship.
 *
 * @param run the one that is judged
 * @param comparison with the baseline; null where there is none
 * @param since the runs of its branch that are remembered between the baseline and this run, the oldest first
 * @param verdict of the gate
 * @param failures by standing, reason and rule: in the order of {@link Standing}, those with most tests first
 * @param flaky tests that passed only on a later attempt, with how flaky they were before
 * @since 0.2.0
 */
public record Today(
        Run run,
        @Nullable Comparison comparison,
        List<RunSummary> since,
        Verdict verdict,
        List<Failures> failures,
        List<Flickered> flaky) {

    public Today {
        since = List.copyOf(since);
        failures = List.copyOf(failures);
        flaky = List.copyOf(flaky);
    }

    /**
     * Failures of one standing, that have one reason and one rule.
     *
     * @param title why
     * @param reason its id; empty where nobody knows
     * @param frame the nearest one of the suite's own code in the first of them; empty where there is none
     * @param evidence the recorded line that explains it; null where the title says all
     * @param tests that failed so, and none where only classes broke
     * @param classes the keys of classes that broke outside their tests
     * @param rule what the team says of it
     * @param isExpired whether it was known only until a day that is over
     * @param failingSince when the first of them began to fail, as far as is remembered; null where they are new with this run
     */
    public record Failures(
            Standing standing,
            String title,
            String reason,
            String frame,
            @Nullable String evidence,
            List<TestResult> tests,
            List<String> classes,
            Optional<TriageRule> rule,
            boolean isExpired,
            @Nullable Instant failingSince) {
        public Failures {
            tests = List.copyOf(tests);
            classes = List.copyOf(classes);
        }

        /** Whose they are: what the rule says, or else who looks after the tests; empty where nobody says. */
        public String whose(LocalDate today) {
            String owners = tests.stream()
                    .map(test -> test.about().owner())
                    .filter(Objects::nonNull)
                    .distinct()
                    .limit(3)
                    .collect(Collectors.joining(", "));
            if (rule.isPresent()) return rule.get().sentence(today, owners.isEmpty() ? null : owners);
            return owners.isEmpty() ? "" : "owner " + owners;
        }

        /** How many tests and classes. */
        public int count() {
            return tests.size() + classes.size();
        }
    }

    /**
     * A test that passed only on a later attempt.
     *
     * @param flakiness in the runs before
     * @param why its last attempt before had failed; null where nobody knows
     * @param difference what went otherwise in that attempt; empty where nothing is known of both
     */
    public record Flickered(
            TestResult test, Flakiness flakiness, @Nullable FailureReason why, String difference) {}

    /**
     * @param history what is remembered of other runs; null for nothing
     */
    public static Today of(
            Run run, Triage triage, Rules rules, @Nullable Comparison comparison, @Nullable History history) {
        History past =
                history == null ? null : history.only(one -> one.started().isBefore(run.started()));
        String branch = RunDigest.of(run, List.of()).branch();
        History branches = past == null ? null : past.only(one -> one.branch().equals(branch));
        Map<String, FailureReason> whyFlaky = new HashMap<>();
        Map<String, TestResult> attemptBefore = new HashMap<>();
        for (FailureReason reason : FailureReason.ofFlaky(run))
            for (TestResult attempt : reason.tests()) {
                whyFlaky.put(attempt.key(), reason);
                attemptBefore.put(attempt.key(), attempt);
            }
        List<Flickered> flaky = run.flaky().stream()
                .map(test -> new Flickered(
                        test,
                        branches == null ? Flakiness.STEADY : branches.flakiness(test.key()),
                        whyFlaky.get(test.key()),
                        difference(attemptBefore.get(test.key()), test)))
                .toList();
        return new Today(
                run,
                comparison,
                since(comparison, branches),
                Verdict.of(rules.gate(), run, triage, comparison),
                failures(run, triage, comparison, branches),
                flaky);
    }

    /** Where both were kept whole, see {@link dev.verbale.results.TestKeeper#failuresAndLaterAttempts()}. */
    private static String difference(@Nullable TestResult failed, TestResult passed) {
        if (failed == null || passed.entries().isEmpty()) return "";
        return FirstDifference.ofAttempts(failed, passed).orElse("");
    }

    private static List<RunSummary> since(@Nullable Comparison comparison, @Nullable History branches) {
        if (comparison == null || branches == null) return List.of();
        Instant from = comparison.before().started();
        return branches.runs().stream()
                .filter(one -> one.started().isAfter(from))
                .toList();
    }

    /** What tells one group from another. */
    private record Group(Standing standing, String reason, int line) {}

    private static List<Failures> failures(
            Run run, Triage triage, @Nullable Comparison comparison, @Nullable History branches) {
        List<FailureReason> reasons = FailureReason.of(run);
        Map<String, FailureReason> byTest = FailureReason.byTest(reasons);
        Map<String, Change> news = new HashMap<>();
        if (comparison != null)
            for (Change change : comparison.newFailures())
                news.put(change.after().key(), change);
        Map<Group, List<Labelled>> groups = new LinkedHashMap<>();
        Map<Group, FailureReason> reasonOf = new HashMap<>();
        for (Labelled one : triage.failures()) {
            FailureReason reason = byTest.get(one.test().id());
            boolean isKnown = one.rule().isPresent() && one.rule().get().knownUntil() != null && !one.isExpired();
            Change change = news.get(one.test().key());
            Standing standing = isKnown ? Standing.KNOWN : standing(comparison, change);
            var group = new Group(
                    standing,
                    reason == null ? "" : reason.id(),
                    one.rule().map(TriageRule::line).orElse(0));
            groups.computeIfAbsent(group, added -> new ArrayList<>()).add(one);
            if (reason != null) reasonOf.put(group, reason);
        }
        List<Failures> all = new ArrayList<>();
        groups.forEach((group, its) -> all.add(failures(group, its, reasonOf.get(group), branches)));
        for (FailureReason reason : reasons)
            for (Standing standing : List.of(Standing.NEW, Standing.UNCOMPARED, Standing.STILL)) {
                List<String> classes = reason.containers().stream()
                        .map(container -> container.key())
                        .filter(key -> standing
                                == (comparison == null
                                        ? Standing.UNCOMPARED
                                        : comparison.newlyBroken().contains(key) ? Standing.NEW : Standing.STILL))
                        .toList();
                if (!classes.isEmpty())
                    all.add(new Failures(
                            standing,
                            reason.title(),
                            reason.id(),
                            reason.frame(),
                            reason.evidence(),
                            List.of(),
                            classes,
                            Optional.empty(),
                            false,
                            null));
            }
        all.sort(Comparator.comparing(Failures::standing).thenComparing(one -> -one.count()));
        return all;
    }

    private static Standing standing(@Nullable Comparison comparison, @Nullable Change change) {
        if (comparison == null) return Standing.UNCOMPARED;
        if (change == null) return Standing.STILL;
        if (change.failedTogether()) return Standing.NEW_TOGETHER;
        return change.isOfFlaky() ? Standing.NEW_OF_FLAKY : Standing.NEW;
    }

    private static Failures failures(
            Group group, List<Labelled> its, @Nullable FailureReason reason, @Nullable History branches) {
        Instant since = null;
        for (Labelled one : its) {
            TestHistory known =
                    branches == null ? null : branches.test(one.test().key()).orElse(null);
            if (known == null || known.failingSince() == null) continue;
            Instant began = known.failingSince().run().started();
            if (since == null || began.isBefore(since)) since = began;
        }
        Labelled first = its.get(0);
        return new Failures(
                group.standing(),
                reason == null ? "No failure was recorded" : reason.title(),
                group.reason(),
                reason == null ? "" : reason.frame(),
                reason == null ? null : reason.evidence(),
                its.stream().map(Labelled::test).toList(),
                List.of(),
                first.rule(),
                first.isExpired(),
                since);
    }

    /** Those of one standing. */
    public List<Failures> of(Standing standing) {
        return failures.stream().filter(one -> one.standing() == standing).toList();
    }

    /** How many tests and classes are of one standing. */
    public int count(Standing standing) {
        return of(standing).stream().mapToInt(Failures::count).sum();
    }
}
