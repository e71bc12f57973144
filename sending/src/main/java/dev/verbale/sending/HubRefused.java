package dev.verbale.sending;

import java.io.IOException;

/**
 * The hub answered that it does not take it, and that trying again will not help: no such project, a token that may not, a size.
 *
 * @since 0.2.0
 */
public final class HubRefused extends IOException {

    private static final long serialVersionUID = 1;

    private final int status;

    HubRefused(int status, String message) {
        super(message);
        this.status = status;
    }

    /** Of its answer, such as 403. */
    public int status() {
        return status;
    }
}
