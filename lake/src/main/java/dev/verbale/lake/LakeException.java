package dev.verbale.lake;

import java.io.IOException;
import java.nio.file.Path;

/**
 * Something of a lake is not as it has to be, or cannot be read; the message says what, where, and what to do.
 *
 * @since 0.2.0
 */
public final class LakeException extends IOException {
    private static final long serialVersionUID = 1;

    LakeException(Path file, String what) {
        this(file.toString(), what);
    }

    LakeException(String file, String what) {
        super(file + ": " + what);
    }

    LakeException(String what, Throwable cause) {
        super(what, cause);
    }
}
