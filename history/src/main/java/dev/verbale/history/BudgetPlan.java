package dev.verbale.history;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/**
 * Test classes for so much time, those first that are likeliest to fail for what they take. A class failed in some of the last runs, and how many of
 * the suite's do without having before is known too: by both (Laplace's rule, with the suite's rate in the place of a half), and by how long it has not run, each has a
 * probability. One that is not remembered is taken to fail as often as not.
 *
 * @param classes in the order of their names
 * @param expected what they take together
 * @param share of the failures that are to be expected of all classes, how many are to be expected of these; 0 to 1
 * @since 0.2.0
 */
public record BudgetPlan(List<String> classes, Duration expected, double share) {

    private static final double UNKNOWN = 0.5;
    private static final double LEAST = 0.001;

    /** As if each had been seen in so many runs more, in which it failed as often as the suite's classes do. */
    private static final double PRIOR_RUNS = 2;

    public BudgetPlan {
        classes = List.copyOf(classes);
    }

    private record Candidate(String name, long millis, double probability) {
        double worth() {
            return probability / millis;
        }
    }

    /**
     * Of these classes.
     *
     * @param history what became of them; may be empty
     * @param candidates their names, nested ones by the class around them
     */
    public static BudgetPlan of(History history, Collection<String> candidates, Duration within) {
        Map<String, ClassHistory> known = ClassHistory.of(history);
        long usual = ClassHistory.median(
                known.values().stream().map(ClassHistory::millis).toList());
        double rate = rate(known.values());
        List<Candidate> all = new ArrayList<>();
        for (String name : new TreeSet<>(candidates)) {
            ClassHistory past = known.get(name);
            all.add(
                    past == null
                            ? new Candidate(name, Math.max(1, usual), UNKNOWN)
                            : new Candidate(name, Math.max(1, past.millis()), probability(past, rate)));
        }
        all.sort(Comparator.comparingDouble((Candidate one) -> -one.worth()).thenComparing(Candidate::name));
        List<String> chosen = new ArrayList<>();
        long millis = 0;
        double found = 0;
        double possible = 0;
        for (Candidate one : all) {
            possible += one.probability;
            if (millis + one.millis > within.toMillis()) continue; // a shorter one may still fit
            chosen.add(one.name);
            millis += one.millis;
            found += one.probability;
        }
        chosen.sort(Comparator.naturalOrder());
        return new BudgetPlan(chosen, Duration.ofMillis(millis), possible == 0 ? 1 : found / possible);
    }

    /** How often a class of this suite fails in a run. */
    private static double rate(Collection<ClassHistory> classes) {
        long runs = classes.stream().mapToLong(ClassHistory::runs).sum();
        long failures = classes.stream().mapToLong(ClassHistory::failures).sum();
        return Math.max(LEAST, (failures + 0.5) / (runs + 1.0));
    }

    /** That it fails now: as often as it did, and once more likely with each run that went by without it. */
    private static double probability(ClassHistory past, double rate) {
        double each = (past.failures() + PRIOR_RUNS * rate) / (past.runs() + PRIOR_RUNS);
        return 1 - (1 - each) * Math.pow(1 - Math.min(0.5, rate), past.since());
    }
}
