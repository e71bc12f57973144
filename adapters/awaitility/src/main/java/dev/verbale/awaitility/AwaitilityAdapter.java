package dev.verbale.awaitility;

import dev.verbale.spi.Adapter;
import java.util.List;

/**
 * What this adapter brings: the library that stands between the suite's own code and what it calls, and the threads on which that
 * asks a test's conditions. What happens in a condition belongs to the test that waits.
 *
 * @since 0.2.0
 */
public final class AwaitilityAdapter implements Adapter {

    /** As {@link java.util.ServiceLoader} makes it. */
    public AwaitilityAdapter() {}

    @Override
    public List<String> libraries() {
        return List.of("org.awaitility.", "org.hamcrest.");
    }

    @Override
    public List<String> bodyThreads() {
        return List.of("awaitility-thread", "awaitility[");
    }
}
