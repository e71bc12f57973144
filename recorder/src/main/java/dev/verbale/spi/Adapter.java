package dev.verbale.spi;

import java.util.List;

/**
 * What an adapter brings besides its calls. Found by {@link java.util.ServiceLoader} when recording starts, once in a JVM; what it
 * throws then is a problem of the run. Whatever an adapter of Verbale's can do, another can do by this.
 *
 * @since 0.2.0
 */
public interface Adapter {

    /** Its settings. A key that no adapter here has may belong to one that is not here, and is not refused. */
    default List<Setting> settings() {
        return List.of();
    }

    /**
     * How the names of classes begin that stand between the suite's own code and what it calls, such as
     * {@code org.openqa.selenium.}: whoever reads a stack trace passes them over.
     */
    default List<String> libraries() {
        return List.of();
    }

    /**
     * How the names of the threads begin that a test framework makes to run the body of one test, as it does for a time limit:
     * such a thread begins in the scope of the thread that made it. A pool's thread, which outlives a test, is none of these.
     */
    default List<String> bodyThreads() {
        return List.of();
    }
}
