package dev.verbale.query;

/**
 * A question could not be answered, or tables not be filled; the message says why and what to do.
 *
 * @since 0.2.0
 */
public final class QueryException extends Exception {
    private static final long serialVersionUID = 1;

    /** For the reason that {@code cause} is. */
    public QueryException(String message, Throwable cause) {
        super(message, cause);
    }

    /** Where {@code message} is all that is to be said. */
    public QueryException(String message) {
        super(message);
    }
}
