package dev.orto.nights;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import org.jspecify.annotations.Nullable;

/**
 * Years of a team's nights that never were, whose truth is known: which tests are flaky at which rate, broken from when to when, slower since
 * when, and which nights were not themselves. The same seed has the same nights. For one thread.
 */
public final class MadeUpTeam {

    private static final int TESTS_A_CLASS = 20;
    private static final Instant FIRST = Instant.parse("2026-01-01T22:00:00Z");
    private static final int NIGHTS_A_YEAR = 365;
    private static final String MAIN = "main";
    private static final double OUTLIER = 0.01;

    private final SuiteShape shape;
    private final String name;
    private final Random random;
    private final List<MadeUpTest> tests = new ArrayList<>();
    private final Map<String, MadeUpTest> byKey = new HashMap<>();
    private final Map<MadeUpTest, String> bugs = new HashMap<>();
    private int night = -1;
    private int classes;
    private int names;
    private double outage;
    private double speed;

    /** @param name such as {@code team7}: packages are called so */
    public MadeUpTeam(String name, SuiteShape shape, long seed) {
        this.name = name;
        this.shape = shape;
        this.random = new Random(seed);
        while (tests.size() < shape.tests()) addClass();
        for (MadeUpTest test : tests) if (random.nextDouble() < shape.flaky()) test.becomeFlaky(0, anyRate());
    }

    /** What is true of the test that a run called so; it may be called otherwise by now. */
    public MadeUpTest test(String key) {
        return Objects.requireNonNull(byKey.get(key), key);
    }

    /** All tests that there are at present. */
    public List<MadeUpTest> tests() {
        return List.copyOf(tests);
    }

    /** Which night of the main branch was the last, from 0. */
    public int night() {
        return night;
    }

    /** Whether something that many tests need was away in the last. */
    public boolean wasOutage() {
        return outage > 0;
    }

    /** Goes on by a night; a run of another branch is there besides in some. */
    public List<RunDigest> next() {
        night++;
        if (night > 0) change();
        outage = random.nextDouble() < shape.outage() ? 0.2 + 0.5 * random.nextDouble() : 0;
        speed = random.nextDouble() < shape.slowNight() ? 1.3 + 0.7 * random.nextDouble() : 1;
        Instant started = FIRST.plus(Duration.ofDays(night)).plusSeconds(random.nextInt(1_200));
        if (random.nextDouble() < shape.wrongClock())
            started = started.plusSeconds(random.nextInt(4 * 86_400) - 2 * 86_400);
        List<RunDigest> runs = new ArrayList<>();
        runs.add(run(MAIN, started, Map.of()));
        if (shape.branchEvery() > 0 && night % shape.branchEvery() == shape.branchEvery() - 1) {
            runs.add(run("beds-" + night, started.plus(Duration.ofHours(11)), brokenOnBranch()));
        }
        return runs;
    }

    private Map<MadeUpTest, String> brokenOnBranch() {
        Map<MadeUpTest, String> broken = new HashMap<>();
        int first = random.nextInt(tests.size());
        for (int i = first; i < Math.min(tests.size(), first + shape.testsABug()); i++)
            broken.put(tests.get(i), "the bed is not there yet");
        return broken;
    }

    private void change() {
        bugs.keySet().removeIf(test -> !test.isBroken(night));
        for (int i = often(shape.bugs()); i > 0; i--) bug();
        for (int i = often(shape.slower()); i > 0; i--) any().slow(night, 1.3 + 1.5 * random.nextDouble());
        for (int i = often(shape.added()); i > 0; i--) addTest();
        if (random.nextDouble() < shape.renamed()) rename();
        double aNight = shape.flaky() * tests.size() / NIGHTS_A_YEAR;
        for (int i = often(aNight); i > 0; i--) {
            MadeUpTest test = any();
            if (!test.wasFlaky(night)) test.becomeFlaky(night, anyRate());
        }
        List<MadeUpTest> flaky =
                tests.stream().filter(test -> test.rate(night) > 0).toList();
        for (int i = flaky.isEmpty() ? 0 : often(aNight); i > 0; i--) {
            MadeUpTest test = flaky.get(random.nextInt(flaky.size()));
            if (test.rate(night) > 0) test.calm(night);
        }
    }

    /** In one class, for one reason. */
    private void bug() {
        MadeUpTest first = any();
        List<MadeUpTest> kin = tests.stream()
                .filter(test -> test.className().equals(first.className()) && !test.isBroken(night))
                .toList();
        int nights = 1;
        while (random.nextDouble() >= shape.mended()) nights++;
        int many = Math.min(kin.size(), 1 + random.nextInt(shape.testsABug()));
        String reason = "bug" + names++;
        for (int i = 0; i < many; i++) {
            kin.get(i).breakFor(night, nights);
            bugs.put(kin.get(i), reason);
        }
    }

    private void rename() {
        MadeUpTest first = any();
        if (random.nextBoolean()) {
            called(first, first.className(), first.method() + "_at_last");
            return;
        }
        String was = first.className();
        String is = was.replaceFirst("Test$", "AndPathTest");
        for (MadeUpTest test : tests) if (test.className().equals(was)) called(test, is, test.method());
    }

    private void called(MadeUpTest test, String className, String method) {
        test.rename(className, method);
        byKey.put(test.key(), test);
    }

    private MadeUpTest any() {
        return tests.get(random.nextInt(tests.size()));
    }

    private double anyRate() {
        return shape.leastRate() * Math.pow(shape.largestRate() / shape.leastRate(), random.nextDouble());
    }

    /** How often something comes that comes {@code mean} times at the mean (Knuth, The Art of Computer Programming 2, 3.4.1). */
    private int often(double mean) {
        double least = Math.exp(-mean);
        int often = 0;
        for (double left = random.nextDouble(); left > least; left *= random.nextDouble()) often++;
        return often;
    }

    private void addClass() {
        classes++;
        for (int i = 0; i < TESTS_A_CLASS && tests.size() < shape.tests(); i++) addTest();
    }

    private void addTest() {
        int number = names++;
        var test = new MadeUpTest(
                "dev.orto." + name + ".Bed" + (night < 0 ? classes : random.nextInt(classes) + 1) + "Test",
                "grows_in_the_" + number + "th_week_of_the_year",
                20 * Math.exp(random.nextDouble() * 5),
                random.nextDouble() < shape.growing() ? Math.log(2) / NIGHTS_A_YEAR : 0);
        tests.add(test);
        byKey.put(test.key(), test);
    }

    private RunDigest run(String branch, Instant started, Map<MadeUpTest, String> brokenThere) {
        List<TestDigest> results = new ArrayList<>(tests.size());
        Map<String, ReasonDigest> reasons = new LinkedHashMap<>();
        double millis = 0;
        for (MadeUpTest test : tests) {
            TestDigest result = result(test, brokenThere.get(test));
            results.add(result);
            millis += result.millis();
            String reason = result.reason();
            if (reason != null) reasons.putIfAbsent(reason, new ReasonDigest(reason, "no water: " + reason));
        }
        return new RunDigest(
                name + "-" + branch + "-" + night,
                started,
                Duration.ofMillis((long) millis),
                Map.of(RunDigest.MADE_UP, "yes", "branch", branch, "commit", "c" + night),
                true,
                true,
                results,
                List.copyOf(reasons.values()));
    }

    private TestDigest result(MadeUpTest test, @Nullable String brokenThere) {
        String reason = brokenThere;
        int attempts = 1;
        if (outage > 0 && random.nextDouble() < outage) reason = "no connection";
        else if (reason == null && test.isBroken(night)) reason = bugs.get(test);
        double rate = test.rate(night);
        if (reason != null) attempts = shape.retries() + 1;
        else
            while (rate > 0 && random.nextDouble() < rate) {
                if (attempts == shape.retries() + 1) {
                    reason = "in a hurry " + test.key();
                    break;
                }
                attempts++;
            }
        double outlier = random.nextDouble() < OUTLIER ? 3 : 1;
        double millis = test.millis(night) * speed * outlier * Math.exp(random.nextGaussian() * shape.spread());
        return new TestDigest(
                test.key(),
                test.key(),
                reason == null ? Outcome.PASSED : Outcome.FAILED,
                (int) millis,
                attempts,
                reason == null && attempts > 1,
                reason,
                List.of(),
                new TestDigest.Origin(test.className(), test.method(), List.of(), "Ada"));
    }
}
