package sample;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.verbale.Verbale;
import org.junit.jupiter.api.Test;
import org.junit.platform.engine.discovery.DiscoverySelectors;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;
import org.junit.platform.launcher.listeners.SummaryGeneratingListener;

/** A test that launches JUnit itself, to see what it makes of a subject that fails as it should. */
public class InnerLaunchSample {

    @Test
    void watchesASubjectFail() {
        Verbale.check("before", () -> {
            throw new AssertionError("gathered before");
        });
        var counts = new SummaryGeneratingListener();
        for (int i = 0; i < 3; i++)
            LauncherFactory.create()
                    .execute(
                            LauncherDiscoveryRequestBuilder.request()
                                    .selectors(DiscoverySelectors.selectClass(Subject.class))
                                    .configurationParameter("junit.jupiter.extensions.autodetection.enabled", "true")
                                    .build(),
                            counts);
        assertEquals(1, counts.getSummary().getTestsFailedCount());
    }

    @Test
    void runsAfterIt() {}

    public static class Subject {
        @Test
        void failsAsItShould() {
            Verbale.log("from the subject");
            throw new AssertionError("wanted");
        }
    }
}
