package dev.verbale.junit;

import dev.verbale.spi.Adapter;
import dev.verbale.spi.Setting;
import java.util.List;

/**
 * What this adapter brings: its setting, and the libraries that tests on the JUnit Platform are written and run with.
 *
 * @since 0.2.0
 */
public final class JUnitAdapter implements Adapter {

    static final Setting INNER_LAUNCHES = Setting.onOff(
            "verbale.junit.inner-launches", false, "`true` records what tests launch with JUnit themselves, too");

    /** As {@link java.util.ServiceLoader} makes it. */
    public JUnitAdapter() {}

    @Override
    public List<Setting> settings() {
        return List.of(INNER_LAUNCHES);
    }

    @Override
    public List<String> libraries() {
        return List.of(
                "org.junit.",
                "junit.framework.",
                "org.opentest4j.",
                "org.hamcrest.",
                "org.assertj.",
                "org.apache.maven.",
                "org.gradle.");
    }

    @Override
    public List<String> bodyThreads() {
        return List.of("junit-timeout-thread-", "Time-limited test"); // of a preemptive timeout, and of JUnit 4
    }
}
