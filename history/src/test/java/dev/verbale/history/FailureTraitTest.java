package dev.verbale.history;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.history.digest.RunDigest.TestDigest.Origin;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** What failing runs have in common is said where it is more than luck, and nothing else is. */
class FailureTraitTest {

    private static final Instant FIRST = Instant.parse("2026-10-05T02:00:00Z");
    private final List<RunDigest> runs = new ArrayList<>();

    private void run(boolean failed, boolean recovered, int millis, int worker, Map<String, String> facts) {
        int number = runs.size();
        boolean isFlaky = failed && recovered;
        Outcome outcome = failed && !recovered ? Outcome.FAILED : Outcome.PASSED;
        var origin = new Origin(null, null, List.of(), null, worker);
        var test = new TestDigest("t", "t", outcome, millis, isFlaky ? 2 : 1, isFlaky, null, List.of(), origin);
        Instant started = FIRST.plus(Duration.ofHours(31L * number));
        runs.add(new RunDigest(
                "run-" + number, started, Duration.ofMinutes(1), facts, true, false, List.of(test), List.of()));
    }

    private Optional<String> found() {
        return FailureTrait.of("t", runs, ZoneOffset.UTC).map(FailureTrait::sentence);
    }

    @Test
    void a_fact_of_nearly_all_failing_runs_is_named_with_its_numbers() {
        for (int i = 0; i < 30; i++) {
            boolean isFirefox = i % 5 == 0;
            run(
                    isFirefox,
                    i % 2 == 0,
                    100,
                    i % 3,
                    Map.of("browser", isFirefox ? "firefox" : "chromium", "commit", "c" + i));
        }

        assertThat(found()).hasValue("fails with browser firefox: 6 of 6 runs, and 0 of 24 others");
    }

    @Test
    void a_worker_and_a_slow_run_are_named() {
        for (int i = 0; i < 40; i++) run(i % 4 == 3, false, 100, i % 4, Map.of());
        assertThat(found()).hasValue("fails with worker 4: 10 of 10 runs, and 0 of 30 others");

        runs.clear();
        for (int i = 0; i < 40; i++) run(i % 7 == 1, false, i % 7 == 1 ? 900 : 100, i % 4, Map.of());
        assertThat(found())
                .hasValue("fails with more than 200 ms, twice what it usually takes: 6 of 6 runs, and 0 of 34 others");
    }

    @Test
    void few_failures_and_what_all_runs_have_say_nothing() {
        for (int i = 0; i < 30; i++) run(i < 3, false, 100, 0, Map.of("browser", i < 3 ? "firefox" : "chromium"));
        assertThat(found()).isEmpty();

        runs.clear();
        for (int i = 0; i < 30; i++) run(true, false, 100, 0, Map.of("browser", "firefox"));
        assertThat(found()).isEmpty();
        assertThat(FailureTrait.of("t", List.of(), ZoneOffset.UTC)).isEmpty();
    }

    @Test
    void where_nothing_is_behind_it_hardly_ever_anything_is_named() {
        var random = new Random(7);
        int named = 0;
        for (int test = 0; test < 1_000; test++) {
            runs.clear();
            double rate = random.nextDouble();
            for (int i = 0; i < 40; i++)
                run(
                        random.nextDouble() < rate,
                        random.nextBoolean(),
                        50 + random.nextInt(200),
                        random.nextInt(4),
                        Map.of(
                                "browser", random.nextBoolean() ? "firefox" : "chromium",
                                "host", "ci-" + random.nextInt(8),
                                "locale", "l" + random.nextInt(3)));
            if (found().isPresent()) named++;
        }
        assertThat(named).isLessThanOrEqualTo(10);
    }

    @Test
    void the_probability_is_that_of_fishers_exact_test() {
        assertThat(FailureTrait.atLeast(3, 4, 4, 8)).isEqualTo(17.0 / 70, within(1e-9)); // the lady tasting tea
        assertThat(FailureTrait.atLeast(4, 4, 4, 8)).isEqualTo(1.0 / 70, within(1e-9));
        assertThat(FailureTrait.atLeast(0, 5, 3, 9)).isEqualTo(1, within(1e-9));
    }
}
