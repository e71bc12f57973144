package dev.verbale.vocabulary;

/**
 * What an attachment is of. A journal of a later version may have kinds that are not among these.
 *
 * @since 0.2.0
 */
public final class AttachmentKind {

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

    private AttachmentKind() {}
}
