package dev.verbale.testng;

import dev.verbale.spi.Capture;
import org.testng.asserts.IAssert;
import org.testng.asserts.SoftAssert;

/**
 * What a test written for TestNG calls. All else is heard without a call.
 *
 * @since 0.2.0
 */
public final class VerbaleTestNG {

    private VerbaleTestNG() {}

    /**
     * Soft assertions that record each failed one when it fails, with evidence; {@link SoftAssert#assertAll()} throws them at the
     * end as always. Belongs to one thread, as any of its kind.
     */
    public static SoftAssert softAssert() {
        return new SoftAssert() {
            @Override
            public void onAssertFailure(IAssert<?> check, AssertionError failure) {
                super.onAssertFailure(check, failure);
                if (failure != null) Capture.current().checkFailed(name(check, failure), failure);
            }
        };
    }

    private static String name(IAssert<?> check, AssertionError failure) {
        String given = check == null ? null : check.getMessage();
        return given == null || given.isEmpty() ? String.valueOf(failure.getMessage()) : given;
    }
}
