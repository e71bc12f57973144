package dev.verbale.rules.yaml;

import java.nio.file.Path;

/**
 * A file in YAML says something that cannot be meant. The message says where, and what to do.
 *
 * @since 0.2.0
 */
public final class YamlFormatException extends Exception {

    private static final long serialVersionUID = 1;

    /**
     * @param line counted from 1
     * @param column counted from 1
     */
    YamlFormatException(Path file, int line, int column, String what, String remedy) {
        super(file + ":" + line + ":" + column + ": " + what + ". " + remedy + ".");
    }
}
