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
     * What a throwable says. Immutable.
     *
     * <pre>{@code
     * Reading reading = Reading.of(Outcome.FAILED).expected("8").actual("7").build();
     * }</pre>
     */
    final class Reading {

        private final Outcome outcome;
        private final @Nullable String expected;
        private final @Nullable String actual;
        private final List<? extends Throwable> gathered;
        private final @Nullable String message;

        private Reading(Builder read) {
            outcome = read.outcome;
            expected = read.expected;
            actual = read.actual;
            gathered = read.gathered;
            message = read.message;
        }

        /** One that means {@code outcome} for the test that threw it; failed where that is null. */
        public static Builder of(Outcome outcome) {
            return new Builder(outcome);
        }

        /** What it means for the test that threw it. */
        public Outcome outcome() {
            return outcome;
        }

        /** The expected value as text, where it has one. */
        public @Nullable String expected() {
            return expected;
        }

        /** The actual value as text, where it has one. */
        public @Nullable String actual() {
            return actual;
        }

        /** The throwables that it reports together. */
        public List<? extends Throwable> gathered() {
            return gathered;
        }

        /**
         * What it says without what is the same for all of its kind; null for its own message. The stack trace holds that in
         * any case.
         */
        public @Nullable String message() {
            return message;
        }

        /** A reading, part by part. For one thread. */
        public static final class Builder {

            private final Outcome outcome;
            private @Nullable String expected;
            private @Nullable String actual;
            private List<? extends Throwable> gathered = List.of();
            private @Nullable String message;

            private Builder(@Nullable Outcome outcome) {
                this.outcome = outcome == null ? Outcome.FAILED : outcome;
            }

            /** @see Reading#expected */
            public Builder expected(@Nullable String text) {
                expected = text;
                return this;
            }

            /** @see Reading#actual */
            public Builder actual(@Nullable String text) {
                actual = text;
                return this;
            }

            /** @see Reading#gathered */
            public Builder gathered(@Nullable List<? extends Throwable> throwables) {
                gathered = throwables == null ? List.of() : throwables;
                return this;
            }

            /** @see Reading#message */
            public Builder message(@Nullable String text) {
                message = text;
                return this;
            }

            /** All that was read. */
            public Reading build() {
                return new Reading(this);
            }
        }
    }
}
