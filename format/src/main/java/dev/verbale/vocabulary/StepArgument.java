package dev.verbale.vocabulary;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What stands below a step that is written in plain language: a table, or a text of several lines.
 *
 * @param text null where there is none
 * @param rows the cells of each row, from the top; empty where there is no table
 * @since 0.2.0
 */
public record StepArgument(@Nullable String text, List<List<String>> rows) {

    public StepArgument {
        rows = rows.stream().map(List::copyOf).toList();
    }

    /** A table. */
    public static StepArgument table(List<List<String>> rows) {
        return new StepArgument(null, rows);
    }

    /** A text of several lines. */
    public static StepArgument text(String text) {
        return new StepArgument(text, List.of());
    }
}
