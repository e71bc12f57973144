package dev.verbale.junit4;

import dev.verbale.spi.ThrowableReader;
import dev.verbale.vocabulary.Outcome;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.AssumptionViolatedException;
import org.junit.ComparisonFailure;
import org.junit.runners.model.MultipleFailureException;

/**
 * Reads what JUnit 4 throws: assumptions, compared texts, several failures in one.
 *
 * @since 0.2.0
 */
public final class JUnit4Reader implements ThrowableReader {

    /** As {@link java.util.ServiceLoader} makes it. */
    public JUnit4Reader() {}

    @Override
    public Optional<Reading> read(Throwable thrown) {
        if (thrown instanceof AssumptionViolatedException)
            return Optional.of(Reading.of(Outcome.ABORTED).build());
        if (thrown instanceof ComparisonFailure texts) return failed(texts.getExpected(), texts.getActual(), List.of());
        if (thrown instanceof junit.framework.ComparisonFailure texts)
            return failed(texts.getExpected(), texts.getActual(), List.of());
        if (thrown instanceof MultipleFailureException many) return failed(null, null, many.getFailures());
        return Optional.empty();
    }

    private static Optional<Reading> failed(
            @Nullable String expected, @Nullable String actual, List<Throwable> gathered) {
        return Optional.of(Reading.of(Outcome.FAILED)
                .expected(expected)
                .actual(actual)
                .gathered(gathered)
                .build());
    }
}
