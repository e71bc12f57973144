package dev.verbale;

import java.util.Optional;

/**
 * Gives recorders. The engine is found by it, so that this package knows nothing of the engine; nobody else provides one.
 *
 * @since 0.2.0
 */
public interface RecorderProvider {

    /** @see Recorder#current() */
    Recorder current();

    /** @see Recorder#currentIfOpen() */
    Optional<Recorder> currentIfOpen();

    /** @see Recorder#open */
    Recorder open(RecorderOptions options);
}
