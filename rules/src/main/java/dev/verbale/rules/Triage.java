package dev.verbale.rules;

import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.reason.FailureEvidence;
import dev.verbale.results.reason.FailureReason;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What the rules say of a run's failures.
 *
 * @param failures the tests that need attention: first those that no rule knows, then those whose rule is over, then the others, each in
 *     the run's order
 * @since 0.2.0
 */
public record Triage(List<Labelled> failures) {

    public Triage {
        failures = List.copyOf(failures);
    }

    /**
     * A failure and what is said of it.
     *
     * @param rule the first that matches; empty where none does
     * @param isExpired whether it was known only until a day that is over
     */
    public record Labelled(TestResult test, Optional<TriageRule> rule, boolean isExpired) {}

    /** @param today by which rules are over */
    public static Triage of(Run run, List<TriageRule> rules, LocalDate today) {
        Map<String, String> reasonOf = new HashMap<>();
        for (FailureReason reason : FailureReason.of(run))
            for (TestResult test : reason.tests()) reasonOf.put(test.key(), reason.id());
        List<Labelled> unknown = new ArrayList<>();
        List<Labelled> expired = new ArrayList<>();
        List<Labelled> others = new ArrayList<>();
        for (TestResult test : run.needingAttention()) {
            FailureEvidence evidence = FailureEvidence.of(test);
            String reason = reasonOf.getOrDefault(test.key(), "");
            Optional<TriageRule> rule = rules.stream()
                    .filter(one -> one.matches(test, evidence, reason))
                    .findFirst();
            boolean isOver = rule.isPresent() && rule.get().isExpired(today);
            var labelled = new Labelled(test, rule, isOver);
            if (rule.isEmpty()) unknown.add(labelled);
            else if (isOver) expired.add(labelled);
            else others.add(labelled);
        }
        unknown.addAll(expired);
        unknown.addAll(others);
        return new Triage(unknown);
    }

    /** What the rules say of each test that they know, by its id, in one line each; see {@link TriageRule#sentence}. */
    public Map<String, String> sentences(LocalDate today) {
        Map<String, String> sentences = new HashMap<>();
        for (Labelled one : failures)
            one.rule().ifPresent(rule -> sentences.put(one.test().id(), rule.sentence(today)));
        return sentences;
    }

    /** The label of each test that the rules know, by its id. */
    public Map<String, String> labels() {
        Map<String, String> labels = new HashMap<>();
        for (Labelled one : failures)
            one.rule().ifPresent(rule -> labels.put(one.test().id(), rule.label()));
        return labels;
    }

    /** How many no rule knows. */
    public int unlabelled() {
        return (int) failures.stream().filter(one -> one.rule().isEmpty()).count();
    }

    /** How many are known by a rule whose day is over. */
    public int expired() {
        return (int) failures.stream().filter(Labelled::isExpired).count();
    }
}
