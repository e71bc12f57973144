package dev.verbale.results;

import java.io.IOException;
import java.nio.file.Path;

/**
 * A folder or a file is not what a reader can make a run of. Says where, what is wrong, why, and what to do.
 *
 * @since 0.2.0
 */
public final class ResultsFormatException extends IOException {
    private static final long serialVersionUID = 1;

    /**
     * @param what is wrong, without a full stop
     * @param why that is so, or what was found instead; a sentence without a full stop
     * @param remedy what to do; a sentence without a full stop
     */
    public ResultsFormatException(Path position, String what, String why, String remedy) {
        super(position + ": " + what + ". " + why + ". " + remedy + ".");
    }
}
