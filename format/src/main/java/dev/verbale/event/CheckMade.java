package dev.verbale.event;

import dev.verbale.vocabulary.Outcome;
import org.jspecify.annotations.Nullable;

/**
 * Something was checked, and the test went on whatever came out.
 *
 * @param in the step, test or container it belongs to, or 0 for the run
 * @param exchange the id of the exchange whose answer was checked, or 0 where nobody said one
 * @param actual the value that was found, or null where the check said none; that of one that failed stands in its failure
 * @since 0.2.0
 */
public record CheckMade(
        long at,
        int in,
        String name,
        Outcome outcome,
        @Nullable Failure failure,
        int exchange,
        @Nullable String actual) implements Event.InScope {

    /** A check of which nothing else is known as yet. */
    public static Builder of(long at, int in, String name, Outcome outcome) {
        return new Builder(at, in, name, outcome);
    }

    /**
     * What may be said beside that; the components say what each is. Not for several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final long at;
        private final int in;
        private final String name;
        private final Outcome outcome;
        private @Nullable Failure failure;
        private int exchange;
        private @Nullable String actual;

        private Builder(long at, int in, String name, Outcome outcome) {
            this.at = at;
            this.in = in;
            this.name = name;
            this.outcome = outcome;
        }

        public Builder failure(@Nullable Failure value) {
            failure = value;
            return this;
        }

        public Builder exchange(int value) {
            exchange = value;
            return this;
        }

        public Builder actual(@Nullable String value) {
            actual = value;
            return this;
        }

        public CheckMade build() {
            return new CheckMade(at, in, name, outcome, failure, exchange, actual);
        }
    }
}
