package dev.verbale.httpclient5;

import dev.verbale.spi.Adapter;
import java.util.List;

/**
 * What this adapter brings: the libraries that stand between the suite's own code and what it calls.
 *
 * @since 0.2.0
 */
public final class HttpClient5Adapter implements Adapter {

    /** As {@link java.util.ServiceLoader} makes it. */
    public HttpClient5Adapter() {}

    @Override
    public List<String> libraries() {
        return List.of("org.apache.hc.");
    }
}
