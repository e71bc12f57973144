package dev.verbale.engine.settings;

/**
 * A value that somebody set.
 *
 * @param source where it was found, for messages
 */
record FoundValue(String key, String value, String source) {

    /** Such as {@code verbale.console=maybe (environment)}. */
    String text() {
        return key + "=" + value + " (" + source + ")";
    }
}
