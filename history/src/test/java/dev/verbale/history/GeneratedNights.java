package dev.verbale.history;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;

/** Nights of one suite whose truth is known: which tests are flaky at which rate, broken when, slower since when, and which nights were not themselves. */
final class GeneratedNights {

    /** What a suite is like. */
    record Shape(
            String name,
            int tests,
            int nights,
            double spread,
            double[] flakyRates,
            int broken,
            int slower,
            int outages,
            int slowNights,
            int retries) {}

    static final List<Shape> SHAPES = List.of(
            new Shape("a small suite", 200, 50, 0.2, new double[] {0.5, 0.3, 0.2, 0.1, 0.1}, 4, 3, 1, 1, 0),
            new Shape("a suite that retries", 300, 60, 0.15, new double[] {0.5, 0.3, 0.2, 0.1, 0.1}, 5, 4, 2, 2, 1),
            new Shape("a quiet suite", 150, 40, 0.1, new double[] {}, 2, 1, 0, 1, 0),
            new Shape(
                    "a restless suite",
                    400,
                    60,
                    0.25,
                    new double[] {0.7, 0.5, 0.5, 0.3, 0.3, 0.2, 0.2, 0.1, 0.1, 0.1, 0.1},
                    15,
                    6,
                    3,
                    4,
                    0),
            new Shape(
                    "a large suite", 2_000, 40, 0.2, new double[] {0.5, 0.3, 0.3, 0.2, 0.1, 0.1, 0.1}, 10, 6, 2, 1, 0));

    final Shape shape;
    final Map<String, Double> flaky = new HashMap<>();
    /** The first and behind the last night. */
    final Map<String, int[]> broken = new HashMap<>();

    /** Since which night, of which tests. */
    final Map<String, Integer> slower = new HashMap<>();

    final Map<Integer, Double> outages = new HashMap<>();
    final List<RunDigest> digests = new ArrayList<>();
    private final Random random;
    private History all;

    GeneratedNights(Shape shape, long seed) {
        this.shape = shape;
        random = new Random(seed);
        List<Integer> free = new ArrayList<>();
        for (int i = 0; i < shape.tests; i++) free.add(i);
        java.util.Collections.shuffle(free, random);
        int next = 0;
        for (double rate : shape.flakyRates) flaky.put(key(free.get(next++)), rate);
        for (int i = 0; i < shape.broken; i++) {
            int from = 3 + random.nextInt(shape.nights - 6);
            int length = random.nextInt(4) == 0 ? shape.nights : 1 + random.nextInt(9);
            broken.put(key(free.get(next++)), new int[] {from, Math.min(shape.nights, from + length)});
        }
        Map<String, Double> factors = new HashMap<>();
        for (int i = 0; i < shape.slower; i++) {
            String key = key(free.get(next++));
            slower.put(key, 12 + random.nextInt(shape.nights - 20));
            factors.put(key, 1.9 + 0.8 * random.nextDouble());
        }
        for (int i = 0; i < shape.outages; i++)
            outages.put(2 + random.nextInt(shape.nights - 3), 0.2 + 0.5 * random.nextDouble());
        List<Integer> slow = new ArrayList<>();
        for (int i = 0; i < shape.slowNights; i++) slow.add(random.nextInt(shape.nights));
        double[] usual = new double[shape.tests];
        for (int i = 0; i < usual.length; i++) usual[i] = 50 * Math.exp(random.nextDouble() * 4);
        for (int night = 0; night < shape.nights; night++)
            digests.add(night(night, usual, factors, slow.contains(night) ? 1.6 : 1));
    }

    /** Whether a test broke that night, or is flaky and had failed once before at the most: nobody can know it yet. */
    boolean begins(String key, int night) {
        int[] when = broken.get(key);
        if (when != null && when[0] == night) return true;
        long before = digests.subList(0, night).stream()
                .flatMap(digest -> digest.tests().stream())
                .filter(test -> test.key().equals(key) && (test.recovered() || test.reason() != null))
                .count();
        return flaky.containsKey(key) && before < 2;
    }

    static String key(int test) {
        return "dev.orto.Bed" + test / 10 + "Test.grows_" + test + "()";
    }

    private RunDigest night(int night, double[] usual, Map<String, Double> factors, double speed) {
        List<TestDigest> tests = new ArrayList<>();
        Map<String, ReasonDigest> reasons = new HashMap<>();
        for (int i = 0; i < shape.tests; i++) {
            String key = key(i);
            int[] when = broken.get(key);
            String reason = null;
            int attempts = 1;
            if (outages.containsKey(night) && random.nextDouble() < outages.get(night)) reason = "no connection";
            else if (when != null && night >= when[0] && night < when[1]) reason = "broken " + key;
            else {
                while (random.nextDouble() < flaky.getOrDefault(key, 0.0)) {
                    if (attempts++ > shape.retries) {
                        reason = "flaky " + key;
                        break;
                    }
                }
            }
            attempts = Math.min(attempts, shape.retries + 1);
            if (reason != null) {
                attempts = shape.retries + 1;
                reasons.putIfAbsent(reason, new ReasonDigest(reason, "Because of " + reason));
            }
            double factor = night >= slower.getOrDefault(key, Integer.MAX_VALUE) ? factors.get(key) : 1;
            double outlier = random.nextInt(100) == 0 ? 3 : 1;
            double millis = usual[i] * factor * speed * outlier * Math.exp(random.nextGaussian() * shape.spread);
            tests.add(new TestDigest(
                    key,
                    key,
                    reason == null ? Outcome.PASSED : Outcome.FAILED,
                    (int) millis,
                    attempts,
                    reason == null && attempts > 1,
                    reason,
                    List.of()));
        }
        Instant started = Nights.FIRST.plus(Duration.ofDays(night));
        return new RunDigest(
                started.toString().substring(0, 10) + "_221500_aaaa",
                started,
                Duration.ofMinutes(9),
                Map.of("branch", "main", "commit", "c" + night),
                true,
                false,
                tests,
                List.copyOf(reasons.values()));
    }

    History upTo(int nights) {
        History whole = all;
        if (whole == null) whole = History.of(digests);
        all = whole;
        Instant behind = Nights.FIRST.plus(Duration.ofDays(nights));
        return whole.only(run -> run.started().isBefore(behind));
    }
}
