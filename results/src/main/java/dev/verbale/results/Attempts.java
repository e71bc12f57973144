package dev.verbale.results;

import dev.verbale.vocabulary.Outcome;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Tells which records of one test are attempts of it. Only what was run again is another attempt, and then the last one counts: a record
 * that began after the one before it was over, in the same JVM, or in one that ran nothing but classes that had not passed until then.
 * Any other two records of one key are none: the worse outcome counts, whichever came last.
 */
final class Attempts {

    /** Nobody runs one test in more JVMs at once; what comes after is an attempt of nothing. */
    private static final int MAX_CHAINS = 100;

    private final List<TestResult> tests;
    private final Map<String, List<Integer>> severalTimes = new HashMap<>();
    private final Map<String, Boolean> runsAgain = new HashMap<>();
    private final List<String> unexplained = new ArrayList<>();

    /** @param tests of one run, in the order in which they started */
    Attempts(List<TestResult> tests) {
        this.tests = tests;
        Map<String, Integer> first = new HashMap<>();
        for (int i = 0; i < tests.size(); i++) {
            Integer before = first.putIfAbsent(tests.get(i).key(), i);
            if (before == null) continue;
            severalTimes
                    .computeIfAbsent(tests.get(i).key(), key -> new ArrayList<>(List.of(before)))
                    .add(i);
        }
    }

    /** All tests, each as the attempt that it is. */
    List<TestResult> numbered() {
        if (severalTimes.isEmpty()) return tests;
        var numbered = new ArrayList<>(tests);
        for (List<Integer> records : severalTimes.values()) number(records, numbered);
        return numbered;
    }

    /** The keys of the tests that were recorded several times, and not because they were run again; after {@link #numbered}. */
    List<String> unexplained() {
        return unexplained.stream().sorted().toList();
    }

    private void number(List<Integer> records, List<TestResult> numbered) {
        List<List<TestResult>> chains = chains(records);
        List<TestResult> counting = chains.get(0);
        for (List<TestResult> chain : chains)
            if (last(chain).outcome().compareTo(last(counting).outcome()) >= 0) counting = chain;
        if (chains.size() > 1) unexplained.add(last(counting).key());
        Set<TestResult> those = Collections.newSetFromMap(new IdentityHashMap<>());
        those.addAll(counting);
        int number = 0;
        boolean oneFailed = false;
        for (int record : records) {
            TestResult test = tests.get(record);
            boolean isLast = isSame(test, last(counting));
            boolean recovered = isLast && oneFailed && test.outcome().equals(Outcome.PASSED);
            if (those.contains(test)) oneFailed |= test.outcome().needsAttention();
            numbered.set(record, test.as(new TestResult.Attempt(++number, !isLast, recovered)));
        }
    }

    /** Each is a record, and what was run again because of it. */
    private List<List<TestResult>> chains(List<Integer> records) {
        List<List<TestResult>> chains = new ArrayList<>();
        for (int record : records) {
            TestResult test = tests.get(record);
            List<TestResult> before = null;
            for (List<TestResult> chain : chains.subList(0, Math.min(MAX_CHAINS, chains.size())))
                if (isRunAgain(last(chain), test)) before = chain;
            if (before == null) {
                before = new ArrayList<>();
                chains.add(before);
            }
            before.add(test);
        }
        return chains;
    }

    private boolean isRunAgain(TestResult before, TestResult test) {
        return !end(before).isAfter(test.started())
                && (before.worker().equals(test.worker())
                        || runsAgain.computeIfAbsent(test.worker(), this::ranOnlyWhatHadNotPassed));
    }

    private boolean ranOnlyWhatHadNotPassed(String worker) {
        Instant began = null;
        Set<String> classes = new HashSet<>();
        for (TestResult test : tests) {
            if (!test.worker().equals(worker)) continue;
            if (began == null) began = test.started();
            classes.add(classOf(test));
        }
        if (began == null) return false;
        for (TestResult test : notPassed()) if (!end(test).isAfter(began)) classes.remove(classOf(test));
        return classes.isEmpty();
    }

    private List<TestResult> notPassed = List.of();

    private List<TestResult> notPassed() {
        if (notPassed.isEmpty())
            notPassed = tests.stream()
                    .filter(test -> test.outcome().needsAttention())
                    .toList();
        return notPassed;
    }

    private static String classOf(TestResult test) {
        return ModuleKey.of(test.module(), test.className() == null ? test.key() : test.className());
    }

    private static Instant end(TestResult test) {
        return test.started().plus(test.duration());
    }

    private static TestResult last(List<TestResult> chain) {
        return chain.get(chain.size() - 1);
    }

    @SuppressWarnings("ReferenceEquality") // two records may be alike
    private static boolean isSame(TestResult one, TestResult other) {
        return one == other;
    }
}
