package dev.verbale.evidence;

import dev.verbale.event.PaperKept;
import dev.verbale.recorder.PromisedPaper;

/** Where a source puts what it takes. Valid until {@link EvidenceSource#take} returns; on that thread only. */
public interface Evidence {

    /** What failed: the throwable that is about to leave a step or a test. */
    Throwable failure();

    /**
     * Keeps a paper.
     *
     * @param name what a reader sees, such as {@code screenshot}
     * @param kind one of those in {@link PaperKept}
     * @param mediaType such as {@code image/png}; for text it is taken to be UTF-8
     */
    void paper(String name, String kind, byte[] content, String mediaType);

    /**
     * Promises a paper that comes later, such as a video that ends with its test.
     *
     * @param kind one of those in {@link PaperKept}
     */
    PromisedPaper promise(String name, String kind);

    /** Writes a line beside the evidence, such as the address that a browser was at. */
    void note(String text);
}
