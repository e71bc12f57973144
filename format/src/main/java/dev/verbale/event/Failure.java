package dev.verbale.event;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Why something did not pass.
 *
 * @param type the throwable's class name, such as {@code java.lang.IllegalStateException}
 * @param message what it said, or null where it said nothing
 * @param stack its stack trace with its causes, as the JVM prints it
 * @param expected the expected value as text, where the assertion told it
 * @param actual the actual value as text, where the assertion told it
 * @param gathered the failures that this one reports together; empty for most
 */
public record Failure(
        String type,
        @Nullable String message,
        String stack,
        @Nullable String expected,
        @Nullable String actual,
        List<Failure> gathered) {

    public Failure {
        gathered = List.copyOf(gathered);
    }
}
