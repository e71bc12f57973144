package dev.verbale.junit4;

import dev.verbale.spi.Adapter;
import java.util.List;

/**
 * What this adapter brings: the libraries that its tests are written and run with, and the thread on which a time limit runs a body.
 *
 * @since 0.2.0
 */
public final class JUnit4Adapter implements Adapter {

    /** As {@link java.util.ServiceLoader} makes it. */
    public JUnit4Adapter() {}

    @Override
    public List<String> libraries() {
        return List.of("org.junit.", "junit.framework.", "org.hamcrest.", "org.apache.maven.", "org.gradle.");
    }

    @Override
    public List<String> bodyThreads() {
        return List.of("Time-limited test");
    }
}
