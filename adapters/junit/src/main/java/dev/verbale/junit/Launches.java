package dev.verbale.junit;

import dev.verbale.spi.Context;
import org.jspecify.annotations.Nullable;
import org.junit.platform.launcher.TestPlan;

/**
 * Knows which launch is the suite's. A test may launch JUnit itself, to see what it does with some subject: what that one runs is
 * the test's own affair, and the failures that it wants are none of the suite's. The setting {@code verbale.junit.inner-launches} has
 * them recorded all the same.
 */
final class Launches {

    private static @Nullable TestPlan outermost;
    private static int inside;

    private Launches() {}

    /** Whether {@code plan}, which begins, is to be recorded. */
    static synchronized boolean begins(TestPlan plan, Context context) {
        boolean wanted = outermost == null || context.isOn(JUnitAdapter.INNER_LAUNCHES);
        if (outermost == null) outermost = plan;
        else inside++;
        return wanted;
    }

    static synchronized void ends(TestPlan plan) {
        if (outermost == plan) {
            outermost = null;
            inside = 0;
        } else if (inside > 0) inside--;
    }

    /** The platform gives its launch up without a word, as it does where memory is at its end. */
    static synchronized void abandoned() {
        outermost = null;
        inside = 0;
    }

    static synchronized boolean isRunning() {
        return outermost != null;
    }
}
