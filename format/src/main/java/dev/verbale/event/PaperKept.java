package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * An attachment was stored.
 *
 * @param in the step, test or container it belongs to, or 0 for the run
 * @param name what a reader sees
 * @param kind what it is: {@link #ATTACHMENT}, {@link #SCREENSHOT}, {@link #PAGE_SOURCE}, or a word of a newer format
 * @param mediaType such as {@code image/png}
 * @param file where it is: a path below the run folder with forward slashes
 * @param size in bytes, as stored
 * @param sha256 of the stored bytes, in small hexadecimal digits, or null where it is not known
 * @param promise the id of the {@link PaperPromised} that this keeps, or 0
 */
public record PaperKept(
        long at,
        int in,
        String name,
        String kind,
        String mediaType,
        String file,
        long size,
        @Nullable String sha256,
        int promise)
        implements Event {

    /** Anything a test's author attached. */
    public static final String ATTACHMENT = "attachment";

    /** What a browser or a screen showed. */
    public static final String SCREENSHOT = "screenshot";

    /** The document that a browser held, as text. */
    public static final String PAGE_SOURCE = "page-source";
}
