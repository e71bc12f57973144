package dev.verbale.event;

import dev.verbale.vocabulary.StepArgument;
import dev.verbale.vocabulary.StepKind;
import org.jspecify.annotations.Nullable;

/**
 * A step began.
 *
 * @param in the step, test or container around it, or 0
 * @param thread the thread's name where the step belongs to no test, else null
 * @param argument what stands below it, where something does
 * @since 0.2.0
 */
public record StepStarted(
        long at,
        int id,
        int in,
        StepKind kind,
        String name,
        @Nullable String thread,
        @Nullable StepArgument argument) implements Event.Begins {

    /** A step of which nothing else is known as yet. */
    public static Builder of(long at, int id, StepKind kind, String name) {
        return new Builder(at, id, kind, name);
    }

    /**
     * What may be said beside that; the components say what each is. Not for several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final long at;
        private final int id;
        private final StepKind kind;
        private final String name;
        private int in;
        private @Nullable String thread;
        private @Nullable StepArgument argument;

        private Builder(long at, int id, StepKind kind, String name) {
            this.at = at;
            this.id = id;
            this.kind = kind;
            this.name = name;
        }

        public Builder in(int value) {
            in = value;
            return this;
        }

        public Builder thread(@Nullable String value) {
            thread = value;
            return this;
        }

        public Builder argument(@Nullable StepArgument value) {
            argument = value;
            return this;
        }

        public StepStarted build() {
            return new StepStarted(at, id, in, kind, name, thread, argument);
        }
    }
}
