package dev.verbale.restassured;

import dev.verbale.spi.Adapter;
import java.util.List;

/**
 * What this adapter brings: the libraries that stand between the suite's own code and what it calls.
 *
 * @since 0.2.0
 */
public final class RestAssuredAdapter implements Adapter {

    /** As {@link java.util.ServiceLoader} makes it. */
    public RestAssuredAdapter() {}

    @Override
    public List<String> libraries() {
        return List.of("io.restassured.", "org.apache.http.", "org.hamcrest.");
    }
}
