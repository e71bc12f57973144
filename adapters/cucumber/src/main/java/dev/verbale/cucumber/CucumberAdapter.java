package dev.verbale.cucumber;

import dev.verbale.spi.Adapter;
import java.util.List;

/**
 * What this adapter brings: the library that its scenarios are run with.
 *
 * @since 0.2.0
 */
public final class CucumberAdapter implements Adapter {

    /** As {@link java.util.ServiceLoader} makes it. */
    public CucumberAdapter() {}

    @Override
    public List<String> libraries() {
        return List.of("io.cucumber.", "✽.");
    }
}
