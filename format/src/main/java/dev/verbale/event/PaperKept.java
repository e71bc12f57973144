package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * An attachment was stored.
 *
 * @param in the step, test or container it belongs to, or 0 for the run
 * @param name what a reader sees
 * @param kind what it is: one of the words below, or a word of a newer format
 * @param mediaType such as {@code image/png}
 * @param file where it is: a path below the run folder with forward slashes
 * @param size in bytes, as stored
 * @param sha256 of the stored bytes, in small hexadecimal digits, or null where it is not known
 * @param promise the id of the {@link PaperPromised} that this keeps, or 0
 * @param begins for a paper that has a time of its own, such as a video, when that begins: in microseconds of this journal,
 *     or 0
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
        int promise,
        long begins)
        implements Event {

    /** Anything a test's author attached. */
    public static final String ATTACHMENT = "attachment";

    /** What a browser or a screen showed. */
    public static final String SCREENSHOT = "screenshot";

    /** The document that a browser held, as text. */
    public static final String PAGE_SOURCE = "page-source";

    /** A film of what a browser or a screen showed. */
    public static final String VIDEO = "video";

    /** Names and times of what a video shows, as WebVTT. */
    public static final String CHAPTERS = "chapters";

    /** A film that nobody encoded: pictures with their times, as {@code docs/format.md} tells. */
    public static final String FILMSTRIP = "filmstrip";

    /** What a browser's console said, as {@code docs/format.md} tells. */
    public static final String CONSOLE = "console";

    /** What a browser asked of the network, as {@code docs/format.md} tells. */
    public static final String NETWORK = "network";

    /** A paper that has no time of its own. */
    public PaperKept(
            long at,
            int in,
            String name,
            String kind,
            String mediaType,
            String file,
            long size,
            @Nullable String sha256,
            int promise) {
        this(at, in, name, kind, mediaType, file, size, sha256, promise, 0);
    }
}
