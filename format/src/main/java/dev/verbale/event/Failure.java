package dev.verbale.event;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Why something did not pass. A throwable is written down once in a journal; whatever else it passes through refers to it by
 * its id.
 *
 * @param id a number of its own in its journal, by which later events refer to it; 0 where nothing will
 * @param type the throwable's class name, such as {@code java.lang.IllegalStateException}; empty in a reference
 * @param message what it said, or null where it said nothing
 * @param stack its stack trace with its causes, as the JVM prints it
 * @param expected the expected value as text, where the assertion has it
 * @param actual the actual value as text, where the assertion has it
 * @param gathered the failures that this one reports together, or that came after it, as in a tear-down; empty for most
 * @since 0.2.0
 */
public record Failure(
        int id,
        String type,
        @Nullable String message,
        String stack,
        @Nullable String expected,
        @Nullable String actual,
        List<Failure> gathered) {

    public Failure {
        gathered = List.copyOf(gathered);
    }

    /** The failure that an earlier event of the journal wrote down under {@code id}. */
    public static Failure reference(int id) {
        return of("", "").id(id).build();
    }

    /** Whether it only says which one it is. */
    public boolean isReference() {
        return type.isEmpty() && id != 0;
    }

    /** A failure of which nothing else is known as yet. */
    public static Builder of(String type, String stack) {
        return new Builder(type, stack);
    }

    /**
     * What may be said beside that; the components say what each is. Not for several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final String type;
        private final String stack;
        private int id;
        private @Nullable String message;
        private @Nullable String expected;
        private @Nullable String actual;
        private List<Failure> gathered = List.of();

        private Builder(String type, String stack) {
            this.type = type;
            this.stack = stack;
        }

        public Builder id(int value) {
            id = value;
            return this;
        }

        public Builder message(@Nullable String value) {
            message = value;
            return this;
        }

        public Builder expected(@Nullable String value) {
            expected = value;
            return this;
        }

        public Builder actual(@Nullable String value) {
            actual = value;
            return this;
        }

        public Builder gathered(List<Failure> value) {
            gathered = value;
            return this;
        }

        public Failure build() {
            return new Failure(id, type, message, stack, expected, actual, gathered);
        }
    }
}
