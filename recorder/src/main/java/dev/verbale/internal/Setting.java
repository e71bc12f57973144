package dev.verbale.internal;

/**
 * A value that somebody set.
 *
 * @param source where it was found, for messages
 */
record Setting(String key, String value, String source) {

    /** Such as {@code verbale.summary=maybe (environment)}. */
    String said() {
        return key + "=" + value + " (" + source + ")";
    }
}
