package dev.verbale.selenium;

import dev.verbale.spi.Adapter;
import java.util.List;

/**
 * What this adapter brings: the libraries that stand between the suite's own code and what it calls.
 *
 * @since 0.2.0
 */
public final class SeleniumAdapter implements Adapter {

    /** As {@link java.util.ServiceLoader} makes it. */
    public SeleniumAdapter() {}

    @Override
    public List<String> libraries() {
        return List.of("org.openqa.", "net.bytebuddy.");
    }
}
