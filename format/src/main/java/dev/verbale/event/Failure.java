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
 * @param gathered the failures that this one reports together; empty for most
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

    /** One that nothing refers to. */
    public Failure(
            String type,
            @Nullable String message,
            String stack,
            @Nullable String expected,
            @Nullable String actual,
            List<Failure> gathered) {
        this(0, type, message, stack, expected, actual, gathered);
    }

    /** The failure that an earlier event of the journal wrote down under {@code id}. */
    public static Failure reference(int id) {
        return new Failure(id, "", null, "", null, null, List.of());
    }

    /** Whether it only says which one it is. */
    public boolean isReference() {
        return type.isEmpty() && id != 0;
    }
}
