package dev.verbale.hub;

import java.util.Locale;
import java.util.Optional;

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
    /** To see them, and to say what is known of the reasons why tests fail. */
    LABEL,
    /** Everything, in all projects. */
    ADMINISTER;

    /** The one that is written so. */
    static Optional<Role> ofWord(String word) {
        for (Role role : values()) if (role.word().equals(word)) return Optional.of(role);
        return Optional.empty();
    }

    /** As it is written. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }
}
