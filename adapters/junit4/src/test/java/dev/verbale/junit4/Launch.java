package dev.verbale.junit4;

import dev.verbale.testing.Launched;
import java.lang.annotation.Annotation;
import java.util.Arrays;
import org.junit.platform.engine.discovery.DiscoverySelectors;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;
import org.junit.platform.launcher.listeners.SummaryGeneratingListener;
import org.junit.platform.launcher.listeners.TestExecutionSummary;
import org.junit.runner.Description;
import org.junit.runner.JUnitCore;
import org.junit.runner.Result;
import org.junit.runner.notification.Failure;
import sample.OldSample;

/** Runs the samples with JUnit 4 itself, with or without the listener, or by the Vintage engine. */
final class Launch {

    private static final Class<?>[] SAMPLES = {
        OldSample.class,
        OldSample.Rows.class,
        OldSample.Theory1.class,
        OldSample.Closed.class,
        OldSample.Several.class,
        OldSample.Untidy.class,
        OldSample.Broken.class,
        OldSample.GivenUp.class,
        OldSample.Ruled.class
    };

    private Launch() {}

    public static void main(String[] arguments) throws Exception {
        if (arguments[0].equals("bare-descriptions")) {
            bareDescriptions();
            return;
        }
        System.out.println(Launched.COUNTS + (arguments[0].equals("vintage") ? vintage() : plain(arguments[0])));
    }

    /** As a build tool makes them that only passes names on. */
    private static void bareDescriptions() throws Exception {
        var listener = new VerbaleRunListener();
        Description passes = Description.createTestDescription(OldSample.class, "passes", (Annotation[]) null);
        listener.testStarted(passes);
        listener.testFinished(passes);
        listener.testIgnored(Description.createTestDescription(OldSample.class, "waits", (Annotation[]) null));
        Description onlyItsClass = Description.createTestDescription(
                OldSample.class.getName(), OldSample.class.getSimpleName(), (Annotation[]) null);
        listener.testStarted(onlyItsClass);
        listener.testFinished(onlyItsClass);
        listener.testRunFinished(new Result());
        System.out.println(Launched.COUNTS + "1 0 1");
    }

    private static String plain(String how) {
        var core = new JUnitCore();
        if (how.equals("listener")) core.addListener(new VerbaleRunListener());
        Result result = core.run(how.equals("rule") ? new Class<?>[] {OldSample.Ruled.class} : SAMPLES);
        int failed = (int) result.getFailures().stream()
                .map(Failure::getDescription)
                .distinct()
                .count();
        int given = result.getAssumptionFailureCount();
        return (result.getRunCount() - failed - given) + " " + failed + " " + (result.getIgnoreCount() + given);
    }

    private static String vintage() {
        var summary = new SummaryGeneratingListener();
        try (LauncherSession session = LauncherFactory.openSession()) {
            session.getLauncher()
                    .execute(
                            LauncherDiscoveryRequestBuilder.request()
                                    .selectors(Arrays.stream(SAMPLES)
                                            .map(DiscoverySelectors::selectClass)
                                            .toList())
                                    .build(),
                            summary);
        }
        TestExecutionSummary counts = summary.getSummary();
        return counts.getTestsSucceededCount() + " " + counts.getTestsFailedCount() + " "
                + (counts.getTestsAbortedCount() + counts.getTestsSkippedCount());
    }
}
