package dev.verbale.testng;

import dev.verbale.spi.Adapter;
import java.util.List;

/**
 * What this adapter brings: the library that its tests are written and run with, and the threads on which it runs their bodies.
 *
 * @since 0.2.0
 */
public final class TestNGAdapter implements Adapter {

    /** As {@link java.util.ServiceLoader} makes it. */
    public TestNGAdapter() {}

    @Override
    public List<String> libraries() {
        return List.of("org.testng.", "org.apache.maven.", "org.gradle.");
    }

    @Override
    public List<String> bodyThreads() {
        return List.of("TestNG-method="); // of a method with a time limit
    }
}
