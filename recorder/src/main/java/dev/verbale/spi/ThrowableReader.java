package dev.verbale.spi;

import dev.verbale.vocabulary.Outcome;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Reads out of a throwable what the JDK's types do not tell. Implementations are found by {@link java.util.ServiceLoader}
 * when recording starts; the first that knows a throwable is believed.
 *
 * @since 0.2.0
 */
public interface ThrowableReader {

    /** What {@code thrown} says, or empty where this reader does not know its type. */
    Optional<Reading> read(Throwable thrown);

    /**
     * What a throwable says.
     *
     * @param outcome what it means for the test that threw it
     * @param expected the expected value as text, where it has one
     * @param actual the actual value as text, where it has one
     * @param gathered the throwables that it reports together
     * @param message what it says without what is the same for all of its kind; null for its own message. The stack trace
     *     holds that in any case
     */
    record Reading(
            Outcome outcome,
            @Nullable String expected,
            @Nullable String actual,
            List<? extends Throwable> gathered,
            @Nullable String message) {

        /** One whose own message is what it says. */
        public Reading(
                Outcome outcome,
                @Nullable String expected,
                @Nullable String actual,
                List<? extends Throwable> gathered) {
            this(outcome, expected, actual, gathered, null);
        }
    }
}
