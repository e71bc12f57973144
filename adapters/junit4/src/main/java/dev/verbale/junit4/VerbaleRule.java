package dev.verbale.junit4;

import dev.verbale.ChecksFailed;
import dev.verbale.ExpectedFailure;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestEnd;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.AssumptionViolatedException;
import org.junit.rules.TestRule;
import org.junit.runner.Description;
import org.junit.runners.model.Statement;

/**
 * Records the tests of a class where no listener does, as when an editor runs them, and captures the evidence of a failure before
 * the rules around it tear anything down:
 *
 * <pre>{@code
 * @Rule public final RuleChain rules =
 *         RuleChain.outerRule(new VerbaleRule()).around(browser).around(new VerbaleRule());
 * }</pre>
 *
 * <p>The outer one begins the test, the inner one sees the browser as it was. What a method with {@code @After} closes is closed by then: JUnit 4 runs that inside of all rules. With it failed checks are
 * gathered to the end of the test, and {@link ExpectedFailure} holds.
 *
 * @since 0.2.0
 */
public final class VerbaleRule implements TestRule {

    /** One for a class. */
    public VerbaleRule() {}

    @Override
    public Statement apply(Statement base, Description description) {
        return new Statement() {
            @Override
            public void evaluate() throws Throwable {
                AdapterRecorder recorder = AdapterRecorder.current();
                boolean isNobodys =
                        !recorder.isRecording() || description == null || description.getTestClass() == null;
                if (isNobodys) base.evaluate();
                else run(recorder, base, description);
            }
        };
    }

    private static void run(AdapterRecorder recorder, Statement base, Description description) throws Throwable {
        OpenTests.OpenTest known = OpenTests.current(description);
        boolean begins = known == null && !recorder.isInTest();
        OpenTests.OpenTest test = begins ? OpenTests.start(recorder, description) : known;
        recorder.gatherChecks();
        Throwable thrown = null;
        try {
            base.evaluate();
            ChecksFailed checks = recorder.failedChecks();
            if (checks != null) throw checks;
        } catch (Throwable failure) {
            if (isExpected(recorder, description, failure)) return;
            thrown = failure;
            if (!(failure instanceof AssumptionViolatedException)) recorder.captureEvidence(failure);
            throw failure;
        } finally {
            if (begins && test != null) end(recorder, test, thrown);
        }
    }

    private static void end(AdapterRecorder recorder, OpenTests.OpenTest test, @Nullable Throwable thrown) {
        if (thrown == null) OpenTests.end(recorder, test, test.annotations.passed());
        else if (thrown instanceof AssumptionViolatedException) OpenTests.end(recorder, test, TestEnd.aborted(thrown));
        else OpenTests.end(recorder, test, TestEnd.threw(thrown));
    }

    private static boolean isExpected(AdapterRecorder recorder, Description description, Throwable failure) {
        Optional<ExpectedFailure> expected = OpenTests.annotations(description).expectedFailure();
        if (expected.isEmpty()
                || failure instanceof AssumptionViolatedException
                || failure instanceof VirtualMachineError) return false;
        recorder.failedAsExpected(expected.get().value(), failure);
        return true;
    }
}
