package dev.verbale.event;

import dev.verbale.vocabulary.Outcome;
import org.jspecify.annotations.Nullable;

/**
 * A step ended.
 *
 * @param reason why it was skipped, where it was
 * @param failure why it failed, on the innermost step that saw it; the steps around it carry only the outcome
 * @since 0.2.0
 */
public record StepEnded(
        long at,
        int id,
        Outcome outcome,
        @Nullable String reason,
        @Nullable Failure failure) implements Event.OfBegun {
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

        public StepEnded build() {
            return new StepEnded(at, id, outcome, reason, failure);
        }
    }
}
