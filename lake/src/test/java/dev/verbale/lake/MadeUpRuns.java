package dev.verbale.lake;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.StepTime;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/** Runs of a suite that grows, with what flickers, breaks, slows down, is renamed and told of otherwise. */
final class MadeUpRuns {

    static final Instant FIRST = Instant.parse("2026-11-01T21:15:00.277888Z");

    private final Random random;
    private final int tests;

    MadeUpRuns(long seed, int tests) {
        random = new Random(seed);
        this.tests = tests;
    }

    /** So many, two a day: one of main in the evening, and every third one of another branch. */
    List<RunDigest> runs(int count) {
        List<RunDigest> runs = new ArrayList<>();
        for (int i = 0; i < count; i++) runs.add(run(i));
        return runs;
    }

    RunDigest run(int number) {
        List<TestDigest> all = new ArrayList<>();
        Map<String, ReasonDigest> reasons = new LinkedHashMap<>();
        for (int i = 0; i < tests + number / 4; i++) all.add(test(i, number, reasons));
        return new RunDigest(
                "run-" + number,
                FIRST.plus(Duration.ofHours(12L * number)),
                Duration.ofSeconds(90),
                Map.of("branch", number % 3 == 2 ? "rota" : "main", "commit", "c" + number, "browser", "O'Brien's"),
                number % 7 != 5,
                true,
                all,
                List.copyOf(reasons.values()));
    }

    private TestDigest test(int i, int run, Map<String, ReasonDigest> reasons) {
        String className = "dev.orto.Bed" + i % 9 + "Test";
        boolean isBroken = i % 11 == 3 && run > 12;
        boolean isFlaky = i % 7 == 2;
        boolean failed = isBroken || isFlaky && random.nextInt(3) == 0;
        boolean recovered = failed && !isBroken && random.nextBoolean();
        Outcome outcome = !failed || recovered ? Outcome.PASSED : i % 2 == 0 ? Outcome.FAILED : Outcome.ERRORED;
        String reason = null;
        if (outcome.needsAttention()) {
            reason = "reason" + i % 5;
            reasons.putIfAbsent(reason, new ReasonDigest(reason, "no water in bed " + i % 5 + ", run " + run));
        }
        int millis = 200 + random.nextInt(40) + (i % 13 == 1 && run > 31 ? 900 : 0);
        return new TestDigest(
                (i % 4 == 0 ? "[beds] " : "") + className + ".grows" + i + "()",
                "Bed › grows " + i + (run > 10 && i % 17 == 0 ? " well" : ""),
                outcome,
                millis,
                recovered ? 2 : 1,
                recovered,
                reason,
                i % 3 == 0 ? List.of(new StepTime("Dig", 30), new StepTime("Sow \uD83C\uDF31", 40)) : List.of(),
                new TestDigest.Origin(
                        className,
                        "grows" + i,
                        i % 5 == 0 ? List.of("slow", "beds") : List.of(),
                        i % 6 == 0 ? null : "Ada",
                        i % 2));
    }
}
