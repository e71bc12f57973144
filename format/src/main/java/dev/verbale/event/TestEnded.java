package dev.verbale.event;

import dev.verbale.vocabulary.Outcome;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A test ended.
 *
 * @param reason why it was skipped or aborted, where it was
 * @param failure why it failed, where it did
 * @param blockedBy the keys of the tests or containers because of which it was not run
 * @since 0.2.0
 */
public record TestEnded(
        long at,
        int id,
        Outcome outcome,
        @Nullable String reason,
        @Nullable Failure failure,
        List<String> blockedBy) implements Event.OfBegun {

    public TestEnded {
        blockedBy = List.copyOf(blockedBy);
    }

    /** An end of which nothing else is known as yet. */
    public static Builder of(long at, int id, Outcome outcome) {
        return new Builder(at, id, outcome);
    }

    /**
     * What may be said beside that; the components say what each is. Not for several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final long at;
        private final int id;
        private final Outcome outcome;
        private @Nullable String reason;
        private @Nullable Failure failure;
        private List<String> blockedBy = List.of();

        private Builder(long at, int id, Outcome outcome) {
            this.at = at;
            this.id = id;
            this.outcome = outcome;
        }

        public Builder reason(@Nullable String value) {
            reason = value;
            return this;
        }

        public Builder failure(@Nullable Failure value) {
            failure = value;
            return this;
        }

        public Builder blockedBy(List<String> value) {
            blockedBy = value;
            return this;
        }

        public TestEnded build() {
            return new TestEnded(at, id, outcome, reason, failure, blockedBy);
        }
    }
}
