package dev.verbale.history;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Machines that end together, whatever a suite is like; and no class is lost on the way. */
class ShardPlanTest {

    /** Nights in which each class has two tests, one of them in a nested class, and together they take that. */
    private static History history(Map<String, Integer> millis, int nights) {
        List<RunDigest> digests = new ArrayList<>();
        for (int night = 0; night < nights; night++) {
            List<TestDigest> tests = new ArrayList<>();
            int later = night;
            millis.forEach((name, all) -> {
                tests.add(test(name, "a", all / 3));
                tests.add(test(name + "$Deep", "b", all - all / 3 + (later == 0 ? 100_000 : 0))); // a slow first night
            });
            digests.add(new RunDigest(
                    "night-" + night,
                    Instant.EPOCH.plus(Duration.ofDays(night)),
                    Duration.ofMinutes(9),
                    Map.of(),
                    true,
                    false,
                    tests,
                    List.of()));
        }
        return History.of(digests);
    }

    private static TestDigest test(String className, String method, int millis) {
        return new TestDigest(
                className + "." + method,
                method,
                Outcome.PASSED,
                millis,
                1,
                false,
                null,
                List.of(),
                new TestDigest.Origin(className, method, List.of(), null));
    }

    private static Map<String, Integer> suite(int classes, long seed) {
        var random = new Random(seed);
        Map<String, Integer> millis = new TreeMap<>();
        for (int i = 0; i < classes; i++)
            millis.put("orto.Bed" + i + "Test", (int) Math.exp(6 + 1.4 * random.nextGaussian()) + 1);
        return millis;
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 8, 40})
    void machines_end_within_a_tenth_of_the_best_that_there_can_be(int machines) {
        for (int seed = 0; seed < 20; seed++) {
            Map<String, Integer> millis = suite(60 + seed * 20, seed);
            ShardPlan plan = ShardPlan.of(history(millis, 3), millis.keySet(), machines);

            List<String> planned = new ArrayList<>();
            for (ShardPlan.Shard shard : plan.shards()) {
                planned.addAll(shard.classes());
                assertThat(shard.expected().toMillis())
                        .isEqualTo(
                                shard.classes().stream().mapToLong(millis::get).sum());
            }
            assertThat(planned).containsExactlyInAnyOrderElementsOf(millis.keySet());
            assertThat(plan.shards()).hasSize(machines);
            long best = bound(millis.values(), machines);
            assertThat(plan.expected().toMillis()).as("seed %d", seed).isLessThanOrEqualTo(best + best / 10);
        }
    }

    /** No plan ends before: an equal share of all, or the longest class. */
    private static long bound(Collection<Integer> millis, int machines) {
        long sum = millis.stream().mapToLong(Integer::longValue).sum();
        return Math.max(Collections.max(millis), (sum + machines - 1) / machines);
    }

    /** Few classes are the hard case: then the best is found by trying all. */
    @Test
    void a_few_classes_too() {
        for (int seed = 0; seed < 200; seed++) {
            var random = new Random(seed);
            int machines = 2 + random.nextInt(2);
            Map<String, Integer> millis = new TreeMap<>();
            for (int i = 0; i < 4 + random.nextInt(5); i++) millis.put("Bed" + i, 1 + random.nextInt(20));
            long best = best(new ArrayList<>(millis.values()), new long[machines], 0);

            long planned = ShardPlan.of(history(millis, 3), millis.keySet(), machines)
                    .expected()
                    .toMillis();

            assertThat(planned).as("%s on %d", millis, machines).isLessThanOrEqualTo(Math.round(best * 1.1 + 0.5));
        }
    }

    private static long best(List<Integer> times, long[] loads, int next) {
        if (next == times.size()) {
            long longest = 0;
            for (long load : loads) longest = Math.max(longest, load);
            return longest;
        }
        long best = Long.MAX_VALUE;
        for (int i = 0; i < loads.length; i++) {
            loads[i] += times.get(next);
            best = Math.min(best, best(times, loads, next + 1));
            loads[i] -= times.get(next);
        }
        return best;
    }

    @Test
    void what_is_not_remembered_is_planned_too_and_named_and_the_plan_is_the_same_on_each_machine() {
        Map<String, Integer> millis = suite(30, 7);
        List<String> classes = new ArrayList<>(millis.keySet());
        classes.add("orto.NewTest");

        ShardPlan plan = ShardPlan.of(history(millis, 3), classes, 4);
        Collections.shuffle(classes, new Random(1));

        assertThat(plan.unknown()).containsExactly("orto.NewTest");
        assertThat(plan.shards())
                .anySatisfy(shard -> assertThat(shard.classes()).contains("orto.NewTest"));
        assertThat(ShardPlan.of(history(millis, 3), classes, 4)).isEqualTo(plan);
        assertThat(ShardPlan.of(History.of(List.of()), List.of("A", "B", "C"), 2)
                        .shards())
                .extracting(shard -> shard.classes().size())
                .containsExactlyInAnyOrder(2, 1);
        assertThat(ShardPlan.of(History.of(List.of()), List.of("A"), 3).shards())
                .hasSize(3);
    }
}
