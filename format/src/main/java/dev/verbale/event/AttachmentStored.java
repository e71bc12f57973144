package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * An attachment was stored.
 *
 * @param in the step, test or container it belongs to, or 0 for the run
 * @param name what a reader sees
 * @param kind what it is: one of the words below, or a word of a newer format
 * @param file where it is
 * @param pending the id of the {@link AttachmentPending} that this completes, or 0
 * @param begins for an attachment that has a time of its own, such as a video, when that begins: in microseconds of this
 *     journal, or 0
 * @since 0.2.0
 */
public record AttachmentStored(long at, int in, String name, String kind, StoredFile file, int pending, long begins)
        implements Event {

    /** Anything a test's author attached. */
    public static final String ATTACHMENT = "attachment";

    /** What a browser or a screen showed. */
    public static final String SCREENSHOT = "screenshot";

    /** The document that a browser held, as text. */
    public static final String PAGE_SOURCE = "page-source";

    /** A video of what a browser or a screen showed. */
    public static final String VIDEO = "video";

    /** Names and times of the steps that a video shows, as WebVTT. */
    public static final String CAPTIONS = "captions";

    /** Frames of a video that nobody encoded, with their times, as {@code docs/format.md} says. */
    public static final String FRAMES = "frames";

    /** What a browser's console said, as {@code docs/format.md} says. */
    public static final String CONSOLE = "console";

    /** What a browser asked of the network, as {@code docs/format.md} says. */
    public static final String NETWORK = "network";

    /**
     * A file of a run.
     *
     * @param path below the run folder, with forward slashes
     * @param mediaType such as {@code image/png}
     * @param size in bytes, as stored
     * @param sha256 of the stored bytes, in small hexadecimal digits, or null where it is not known
     */
    public record StoredFile(
            String path,
            String mediaType,
            long size,
            @Nullable String sha256) {}
}
