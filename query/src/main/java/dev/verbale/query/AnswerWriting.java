package dev.verbale.query;

import java.io.IOException;

/**
 * An answer that is being written. Not for several threads at once.
 *
 * @since 0.2.0
 */
public interface AnswerWriting extends AnswerRows {

    /** How many rows a table has at the most: more than a person reads in a terminal. */
    int MAX_ROWS = 200;

    /**
     * Writes what is left.
     *
     * @throws IOException where it cannot be written
     */
    void end() throws IOException;
}
