package dev.verbale.recorder;

import java.io.InputStream;
import java.nio.file.Path;

/**
 * A paper that comes later, perhaps after its test has ended, and still belongs to it. Kept once; a second call does
 * nothing but leave a problem in the run. From any thread. Where it is never kept, the run says so.
 */
public interface PromisedPaper {
    /** Here is what it holds; copied before this returns, closing it is left to the caller. */
    void keep(InputStream content, String mediaType);

    /** Here is the file that holds it; moved where that is possible, else copied. The type follows from its name. */
    default void keep(Path file) {
        keep(file, 0);
    }

    /**
     * The same for a file that has a time of its own, such as a video.
     *
     * @param begins when what it shows begins, by {@link Recorder#now}; 0 where it has no time of its own
     */
    void keep(Path file, long begins);
}
