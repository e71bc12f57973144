package dev.verbale.journal.line;

/** A line that cannot be an event. Its message says why, without the place. */
public final class MalformedLine extends RuntimeException {
    private static final long serialVersionUID = 1;

    MalformedLine(String why) {
        super(why);
    }
}
