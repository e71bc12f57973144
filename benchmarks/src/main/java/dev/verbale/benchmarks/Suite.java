package dev.verbale.benchmarks;

import org.junit.platform.engine.discovery.DiscoverySelectors;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;

/**
 * Runs one class of {@link TrivialTests} with every listener that is on the class path, and prints how many microseconds
 * that took.
 */
public final class Suite {

    private Suite() {}

    /** Argument: the class. */
    public static void main(String[] arguments) {
        var request = LauncherDiscoveryRequestBuilder.request()
                .selectors(DiscoverySelectors.selectClass(arguments[0]))
                .build();
        try (LauncherSession session = LauncherFactory.openSession()) {
            long from = System.nanoTime();
            session.getLauncher().execute(request);
            System.out.println("micros " + (System.nanoTime() - from) / 1_000);
        }
    }
}
