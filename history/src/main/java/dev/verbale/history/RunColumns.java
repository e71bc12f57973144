package dev.verbale.history;

import dev.verbale.history.digest.RunDigest;
import dev.verbale.history.digest.RunDigest.ReasonDigest;
import dev.verbale.history.digest.RunDigest.TestDigest;
import dev.verbale.vocabulary.Outcome;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;

/**
 * What one run says of its tests, by columns: only what did not simply pass, for nearly all did, and the times apart.
 *
 * @param table which tests it has
 * @param reasons that its tests failed for
 * @param unusual what did not pass at once, in the order of the table
 * @param times how long the tests took
 */
record RunColumns(RunSummary run, SuiteTable table, List<ReasonDigest> reasons, List<Unusual> unusual, Times times) {

    RunColumns {
        reasons = List.copyOf(reasons);
        unusual = List.copyOf(unusual);
    }

    /**
     * A test that did not simply pass.
     *
     * @param position in the table
     * @param attempts 1 or more
     * @param recovered whether it passed after an attempt that had not
     * @param reason the position of its reason; -1 for none
     */
    record Unusual(int position, Outcome outcome, int attempts, boolean recovered, int reason) {}

    /** The times of a run's tests, kept or read again. Safe for several threads. */
    interface Times {

        /** Milliseconds, in the order of the table. */
        int[] millis();

        /** Which worker each test ran on, from 0, or -1; empty where there was one only. */
        int[] workers();
    }

    private record Kept(int[] millis, int[] workers) implements Times {}

    /** Of a digest that was read. */
    static RunColumns of(RunDigest digest) {
        List<TestDigest> tests = digest.tests();
        Map<String, Integer> reasons = new HashMap<>();
        for (ReasonDigest reason : digest.reasons()) reasons.putIfAbsent(reason.id(), reasons.size());
        List<Unusual> unusual = IntStream.range(0, tests.size())
                .filter(i -> isUnusual(tests.get(i)))
                .mapToObj(i -> unusual(i, tests.get(i), reasons))
                .toList();
        boolean hasWorkers = tests.stream().anyMatch(test -> test.origin().worker() >= 0);
        return new RunColumns(
                RunSummary.of(digest),
                SuiteTable.of(tests),
                digest.reasons(),
                unusual,
                new Kept(
                        tests.stream().mapToInt(TestDigest::millis).toArray(),
                        hasWorkers
                                ? tests.stream()
                                        .mapToInt(test -> test.origin().worker())
                                        .toArray()
                                : new int[0]));
    }

    private static boolean isUnusual(TestDigest test) {
        return !test.outcome().equals(Outcome.PASSED)
                || test.recovered()
                || test.attempts() > 1
                || test.reason() != null;
    }

    private static Unusual unusual(int position, TestDigest test, Map<String, Integer> reasons) {
        String why = test.reason();
        return new Unusual(
                position,
                test.outcome(),
                test.attempts(),
                test.recovered(),
                why == null ? -1 : reasons.getOrDefault(why, -1));
    }

    /** These, with the same table as an object that others have too. */
    RunColumns in(SuiteTable shared) {
        return new RunColumns(run, shared, reasons, unusual, times);
    }
}
