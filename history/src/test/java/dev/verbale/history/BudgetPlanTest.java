package dev.verbale.history;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;

/** What fits into a tenth of the time, and how much it finds, on nights whose truth is known. */
class BudgetPlanTest {

    private static final int SEEDS = Integer.getInteger("verbale.seeds", 1);

    private static RunDigest withClasses(RunDigest night) {
        return new RunDigest(
                night.run(),
                night.started(),
                night.duration(),
                night.facts(),
                night.isComplete(),
                night.isMadeUp(),
                night.tests().stream()
                        .map(test -> new TestDigest(
                                test.key(),
                                test.name(),
                                test.outcome(),
                                test.millis(),
                                test.attempts(),
                                test.recovered(),
                                test.reason(),
                                test.steps(),
                                new TestDigest.Origin(className(test), null, List.of(), null)))
                        .toList(),
                night.reasons());
    }

    private static String className(TestDigest test) {
        return test.key().replaceFirst("\\.grows.*", "");
    }

    /** Of each night from the fifteenth on that was itself: how many of its failing classes a plan of a tenth of the time has. */
    @Test
    void a_tenth_of_the_time_finds_most_of_what_fails_and_says_so_before() {
        double failing = 0;
        double found = 0;
        double expected = 0;
        int nights = 0;
        for (GeneratedNights.Shape shape : GeneratedNights.SHAPES) {
            if (shape.tests() > 500) continue;
            for (int seed = 0; seed < SEEDS; seed++) {
                var generated = new GeneratedNights(shape, seed);
                List<RunDigest> all = generated.digests.stream()
                        .map(BudgetPlanTest::withClasses)
                        .toList();
                for (int night = 15; night < all.size(); night++) {
                    if (generated.outages.containsKey(night)) continue;
                    Set<String> failed = new TreeSet<>();
                    Map<String, Long> classes = new HashMap<>();
                    for (TestDigest test : all.get(night).tests()) {
                        classes.merge(className(test), (long) test.millis(), Long::sum);
                        if (test.outcome().needsAttention()) failed.add(className(test));
                    }
                    long whole =
                            classes.values().stream().mapToLong(Long::longValue).sum();
                    BudgetPlan plan = BudgetPlan.of(
                            History.of(all.subList(0, night)), classes.keySet(), Duration.ofMillis(whole / 10));
                    assertThat(plan.expected()).isLessThanOrEqualTo(Duration.ofMillis(whole / 10));
                    assertThat(plan.share()).isBetween(0.0, 1.0);
                    if (failed.isEmpty()) continue;
                    nights++;
                    expected += plan.share();
                    failing += failed.size();
                    found += failed.stream().filter(plan.classes()::contains).count();
                }
            }
        }
        System.out.printf(
                "of the failing classes of %d nights found %.0f of %.0f, %.0f %%; expected %.0f %%%n",
                nights, found, failing, 100 * found / failing, 100 * expected / nights);
        assertThat(found / failing).isGreaterThan(0.4);
        assertThat(Math.abs(found / failing - expected / nights)).isLessThan(0.15);
    }

    @Test
    void what_is_new_or_has_not_run_for_long_comes_before_what_always_passes() {
        var nights = new Nights();
        List<RunDigest> runs = new ArrayList<>();
        for (RunDigest night : nights.takes("a", 100, 100, 100, 100, 100, 100)
                .takes("b", 100, 100, 100, 100, 100, 100)
                .digests()) {
            List<TestDigest> tests = night.tests().stream()
                    .filter(test -> !test.key().equals("b") || runs.size() < 2)
                    .map(test -> new TestDigest(
                            test.key(),
                            test.name(),
                            test.outcome(),
                            test.millis(),
                            1,
                            false,
                            null,
                            List.of(),
                            new TestDigest.Origin(
                                    test.key().toUpperCase(java.util.Locale.ROOT), null, List.of(), null)))
                    .toList();
            runs.add(new RunDigest(
                    night.run(), night.started(), night.duration(), Map.of(), true, false, tests, List.of()));
        }
        History history = History.of(runs);

        assertThat(BudgetPlan.of(history, List.of("A", "B", "C"), Duration.ofMillis(100))
                        .classes())
                .containsExactly("C");
        assertThat(BudgetPlan.of(history, List.of("A", "B"), Duration.ofMillis(100))
                        .classes())
                .as("it has not run in the last four")
                .containsExactly("B");
        BudgetPlan all = BudgetPlan.of(history, List.of("A", "B", "C"), Duration.ofSeconds(9));
        assertThat(all.classes()).containsExactly("A", "B", "C");
        assertThat(all.share()).isEqualTo(1);
        assertThat(BudgetPlan.of(history, List.of("A", "B"), Duration.ZERO).classes())
                .isEmpty();
        assertThat(BudgetPlan.of(History.of(List.of()), List.of(), Duration.ZERO)
                        .share())
                .isEqualTo(1);
    }
}
