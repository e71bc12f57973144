package dev.verbale.query;

import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * Who takes an answer, row by row, as it comes.
 *
 * @since 0.2.0
 */
public interface AnswerRows {

    /**
     * The names of the columns, once, before any row.
     *
     * @throws IOException where they cannot be written on
     */
    void columns(List<String> names) throws IOException;

    /**
     * A row.
     *
     * @param values one for each column: a {@link Number}, a {@link Boolean}, a {@link String}, an {@link java.time.Instant}, or null
     * @return whether more of them are wanted
     * @throws IOException where it cannot be written on
     */
    boolean row(List<@Nullable Object> values) throws IOException;
}
