package dev.verbale.assertj;

import dev.verbale.spi.Capture;
import org.assertj.core.api.AbstractSoftAssertions;

/**
 * Records the failures that soft assertions collect: one call for each object of theirs.
 *
 * @since 0.2.0
 */
public final class VerbaleAssertJ {

    private VerbaleAssertJ() {}

    /**
     * From now on each failure that {@code softly} collects is a failed check in the journal, at its moment and with its
     * evidence. They still fail the test where AssertJ throws them, and there only.
     *
     * @return {@code softly}
     */
    public static <S extends AbstractSoftAssertions> S watch(S softly) {
        if (softly != null)
            softly.addAfterAssertionErrorCollected(failure -> Capture.current().checkFailed("soft assertion", failure));
        return softly;
    }
}
