package dev.verbale.rules;

import java.nio.file.Path;

/**
 * A file of rules says something that cannot be meant.
 *
 * @since 0.2.0
 */
public final class RulesFormatException extends Exception {

    private static final long serialVersionUID = 1;

    /**
     * @param line counted from 1
     * @param column counted from 1
     */
    RulesFormatException(Path file, int line, int column, String what, String remedy) {
        super(file + ":" + line + ":" + column + ": " + what + ". " + remedy + ".");
    }
}
