package dev.verbale.spi;

import dev.verbale.ChecksFailed;
import dev.verbale.Scope;
import org.jspecify.annotations.Nullable;

/**
 * What the adapter of a test framework calls: when containers and tests begin and end.
 *
 * <p>Order: a container begins before what lies in it and ends after it; a test ends once. What comes in another order does no
 * harm and is a problem of the run. Threads: a beginning makes its scope current on the calling thread, and the end puts back
 * what was current before, so both belong on the thread that runs the test; an end from elsewhere only ends. Failure: no call
 * throws.
 *
 * <pre>{@code
 * Scope container = lifecycle.startContainer(lifecycle.run(), TestDescriptor.of("garden.csv", "garden.csv").build());
 * Scope test = lifecycle.startTest(container, TestDescriptor.of("garden.csv/1", "Weed a bed").build());
 * lifecycle.endTest(test, TestEnd.passed());
 * lifecycle.endContainer(container, TestEnd.passed(), 0);
 * }</pre>
 *
 * @since 0.2.0
 */
public interface TestLifecycle {

    /** The one of this JVM; see {@link AdapterRecorder#current()}. */
    static TestLifecycle current() {
        return AdapterRecorder.current();
    }

    /** The run itself. */
    Scope run();

    /** A container begins inside {@code in}, and becomes the scope of this thread. */
    Scope startContainer(Scope in, TestDescriptor descriptor);

    /**
     * A container begins inside {@code in} whose tests may run on several threads: it becomes nobody's scope until somebody
     * enters it.
     */
    Scope startSharedContainer(Scope in, TestDescriptor descriptor);

    /**
     * A container ends.
     *
     * @param notRun how many of its tests were never started because of how it ended
     */
    void endContainer(Scope container, TestEnd end, int notRun);

    /** A test begins inside {@code in}, and becomes the scope of this thread. */
    Scope startTest(Scope in, TestDescriptor descriptor);

    /**
     * Which test it is became known after it began: key and name of {@code descriptor} replace those it began with. For
     * frameworks that run the set-up before they choose the data.
     */
    void identifyTest(Scope test, TestDescriptor descriptor);

    /** A test ends. Evidence of its failure is captured first, where no step captured it; exchanges still open end too. */
    void endTest(Scope test, TestEnd end);

    /**
     * From now on failed checks of the test that runs on this thread are gathered: whoever calls this has to throw what
     * {@link #failedChecks} gives at the end of the test.
     */
    void gatherChecks();

    /** The checks that failed so far in the test that runs on this thread, in one; null where there is none. */
    @Nullable
    ChecksFailed failedChecks();

    /**
     * The test that runs on this thread threw what its author expects, and the calling adapter keeps that from the framework: where
     * the test ends as passed, it is an expected failure.
     *
     * @param reason why it was expected
     */
    void failedAsExpected(String reason, Throwable thrown);

    /**
     * The calling adapter records what {@code engine} runs, from now on. One that hears of the same tests in another way, as the
     * JUnit Platform tells of all that it runs, leaves them to it.
     *
     * @param engine the id of the framework's engine on the JUnit Platform, such as {@code testng}
     */
    void claim(String engine);

    /** Whether an adapter claimed anything. */
    boolean hasClaims();

    /** Whether an adapter claimed {@code engine}. */
    boolean isClaimed(String engine);

    /**
     * The test framework has done its work for now: says so in one line on the standard output, unless that is switched
     * off or nothing ran since it was last said.
     */
    void sessionEnded();
}
