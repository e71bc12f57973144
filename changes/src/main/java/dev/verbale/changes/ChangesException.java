package dev.verbale.changes;

/**
 * Nobody can say what changed, or what depends on it; the message says why and what to do.
 *
 * @since 0.2.0
 */
public final class ChangesException extends Exception {
    private static final long serialVersionUID = 1;

    ChangesException(String message) {
        super(message);
    }
}
