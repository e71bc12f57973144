package dev.verbale.viewer;

import java.io.IOException;
import java.io.OutputStream;
import org.jspecify.annotations.Nullable;

/**
 * A request and the answer to it, whichever server has them. For one thread.
 *
 * @since 0.2.0
 */
public interface WebExchange {

    /** The length of an answer that comes bit by bit. */
    long UNKNOWN = -1;

    /** In capitals. */
    String method();

    /** Decoded, and below where the site is: it begins with a slash. */
    String path();

    /** Of the request; null where it was not sent. */
    @Nullable
    String header(String name);

    /** Sets a header of the answer, which has not begun. */
    void set(String name, String value);

    /** Answers without a body. */
    void answer(int status) throws IOException;

    /**
     * Answers with what is written to the result.
     *
     * @param length in bytes, more than 0, or {@link #UNKNOWN}
     */
    OutputStream answer(int status, long length) throws IOException;

    /** Answers with what a feed has, as it comes, until either is gone. It may return before that. */
    void stream(EventFeed feed) throws IOException;
}
