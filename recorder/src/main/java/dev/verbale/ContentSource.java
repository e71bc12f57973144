package dev.verbale;

import java.io.InputStream;
import org.jspecify.annotations.Nullable;

/**
 * Gives the content of an attachment when it is asked. What it throws costs the attachment, and the run says so.
 *
 * @since 0.2.0
 */
@FunctionalInterface
public interface ContentSource {

    /**
     * The content; null where there is none, which is a problem of the run. Read to its end, and not closed.
     *
     * @throws Exception where it cannot be had
     */
    @Nullable
    InputStream open() throws Exception;
}
