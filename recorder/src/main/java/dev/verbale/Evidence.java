package dev.verbale;

import java.time.Instant;

/**
 * Where a source puts what it captures. Valid until {@link EvidenceSource#capture} returns; on that thread only.
 *
 * @since 0.2.0
 */
public interface Evidence {

    /** When the test, container or run began in which it failed. What somebody else wrote before is not of it. */
    default Instant began() {
        return Instant.EPOCH;
    }

    /** What failed: the throwable that is about to leave a step or a test. */
    Throwable failure();

    /**
     * Attaches something.
     *
     * @param name what a reader sees, such as {@code screenshot}
     * @param kind one of those in {@link dev.verbale.vocabulary.AttachmentKind}
     * @param type such as {@link MediaType#PNG}; text is taken to be UTF-8
     */
    void attach(String name, String kind, byte[] content, MediaType type);

    /**
     * Attaches something that comes later, such as a video that ends with its test.
     *
     * @param kind one of those in {@link dev.verbale.vocabulary.AttachmentKind}
     */
    PendingAttachment attachLater(String name, String kind);

    /** Logs a line beside the evidence, such as the address that a browser was at. */
    void log(String text);

    /**
     * Logs a line that somebody else wrote, such as the tested service.
     *
     * @param writer what a reader knows it by
     */
    default void log(String writer, String text) {
        log(writer + ": " + text);
    }
}
