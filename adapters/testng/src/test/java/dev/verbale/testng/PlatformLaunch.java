package dev.verbale.testng;

import dev.verbale.testing.Launched;
import org.junit.platform.engine.discovery.DiscoverySelectors;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;

/** Runs a class with TestNG's engine on the JUnit Platform, as newer build tools do. */
final class PlatformLaunch {

    private PlatformLaunch() {}

    public static void main(String[] arguments) {
        try (LauncherSession session = LauncherFactory.openSession()) {
            session.getLauncher()
                    .execute(LauncherDiscoveryRequestBuilder.request()
                            .selectors(DiscoverySelectors.selectClass(arguments[0]))
                            .build());
        }
        System.out.println(Launched.COUNTS + "0 0 0");
    }
}
