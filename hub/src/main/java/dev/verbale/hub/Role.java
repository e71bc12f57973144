package dev.verbale.hub;

import java.util.Locale;

/**
 * What a token lets somebody do on a hub.
 *
 * @since 0.2.0
 */
public enum Role {
    /** To send runs of a project. */
    SEND,
    /** To see the runs of a project. */
    READ,
    /** Everything, in all projects. */
    ADMINISTER;

    /** As it is written. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
