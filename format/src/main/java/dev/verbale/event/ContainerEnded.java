package dev.verbale.event;

import dev.verbale.vocabulary.Outcome;
import org.jspecify.annotations.Nullable;

/**
 * Something that holds tests ended.
 *
 * @param outcome of the container itself, such as of its set-up, whatever its tests did
 * @param reason why it was skipped, where it was
 * @param failure why its set-up or tear-down failed, where it did
 * @param notRun how many of its tests were never started because of that
 * @since 0.2.0
 */
public record ContainerEnded(
        long at,
        int id,
        Outcome outcome,
        @Nullable String reason,
        @Nullable Failure failure,
        int notRun) implements Event.OfBegun {
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
        private int notRun;

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

        public Builder notRun(int value) {
            notRun = value;
            return this;
        }

        public ContainerEnded build() {
            return new ContainerEnded(at, id, outcome, reason, failure, notRun);
        }
    }
}
