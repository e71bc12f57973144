package dev.verbale.results;

import java.util.List;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Takes each test of a run while it is read, and says what the run has of it in memory: what happened in 100,000 tests is most of a
 * run, and who asks how they ended needs none of it. See {@link RunReader#read(java.nio.file.Path, TestKeeper)}.
 *
 * <p>Journals are read side by side, so it is called on several threads at once.
 *
 * @since 0.2.0
 */
@FunctionalInterface
public interface TestKeeper {

    /** What happened in tests that need attention; of all others how they ended, and nothing that happened in them. */
    TestKeeper FAILURES = test -> test.outcome().needsAttention() ? test : test.withEntries(List.of());

    /**
     * What happened in tests that need attention, and in the attempts that passed after them: for one run only.
     *
     * @since 0.2.0
     */
    static TestKeeper failuresAndLaterAttempts() {
        Set<String> failed = ConcurrentHashMap.newKeySet();
        return test -> {
            if (test.outcome().needsAttention()) {
                failed.add(test.key());
                return test;
            }
            return failed.contains(test.key()) ? test : test.withEntries(List.of());
        };
    }

    /** How tests ended, and nothing that happened in them. */
    TestKeeper ENDS = test -> test.withEntries(List.of());

    /** Called once, before any test: {@code run} is read now. */
    default void begins(RunBeginning run) {}

    /**
     * What the run has of {@code test}, which is whole but for its attempt: that is known when all are. A test of which lines come
     * after its end comes again, with these; the last result of this method counts.
     */
    TestResult keep(TestResult test);
}
