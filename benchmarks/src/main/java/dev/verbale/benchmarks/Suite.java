package dev.verbale.benchmarks;

import org.junit.platform.engine.discovery.DiscoverySelectors;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.core.LauncherConfig;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;

/** Runs one class of {@link TrivialTests}, with the listener or without, and prints how many microseconds that took. */
public final class Suite {

    private Suite() {}

    /** Arguments: the class, and {@code with} or {@code without}. */
    public static void main(String[] arguments) {
        boolean with = arguments[1].equals("with");
        var config = LauncherConfig.builder()
                .enableTestExecutionListenerAutoRegistration(with)
                .enableLauncherSessionListenerAutoRegistration(with)
                .build();
        var request = LauncherDiscoveryRequestBuilder.request()
                .selectors(DiscoverySelectors.selectClass(arguments[0]))
                .build();
        try (LauncherSession session = LauncherFactory.openSession(config)) {
            long from = System.nanoTime();
            session.getLauncher().execute(request);
            System.out.println("micros " + (System.nanoTime() - from) / 1_000);
        }
    }
}
