package dev.verbale.recorder;

import java.io.InputStream;
import org.jspecify.annotations.Nullable;

/** Gives the content of a paper when it is asked. What it throws costs the paper, and the run says so. */
@FunctionalInterface
public interface ContentSource {

    /**
     * The content; null where there is none, which is told as a problem. Read to its end, and not closed.
     *
     * @throws Exception where it cannot be had
     */
    @Nullable
    InputStream open() throws Exception;
}
