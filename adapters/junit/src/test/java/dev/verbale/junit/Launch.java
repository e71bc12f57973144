package dev.verbale.junit;

import java.io.PrintWriter;
import java.util.Arrays;
import java.util.List;
import org.junit.platform.engine.DiscoverySelector;
import org.junit.platform.engine.discovery.DiscoverySelectors;
import org.junit.platform.launcher.LauncherDiscoveryRequest;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;
import org.junit.platform.launcher.listeners.SummaryGeneratingListener;
import org.junit.platform.launcher.listeners.TestExecutionSummary;
import sample.SpockSample;

/** Runs classes or packages with the platform's own launcher, as build tools do, and says what the platform counted. */
final class Launch {

    static final String COUNTS = "platform counts: ";

    /** Instead of a class: the specification of Spock. */
    static final String SPOCK = "spock";

    private Launch() {}

    public static void main(String[] arguments) {
        var summary = new SummaryGeneratingListener();
        try (LauncherSession session = LauncherFactory.openSession()) {
            session.getLauncher().execute(request(Arrays.asList(arguments)), summary);
        }
        TestExecutionSummary counts = summary.getSummary();
        var out = new PrintWriter(System.out, true);
        out.println(COUNTS + counts.getTestsFoundCount() + " " + counts.getTestsSucceededCount() + " "
                + counts.getTestsFailedCount() + " " + counts.getTestsAbortedCount() + " "
                + counts.getTestsSkippedCount());
        System.exit(0); // some suites leave threads behind
    }

    private static LauncherDiscoveryRequest request(List<String> names) {
        LauncherDiscoveryRequestBuilder request = LauncherDiscoveryRequestBuilder.request();
        for (String name : names) {
            boolean setting = name.contains("=");
            if (setting) request.configurationParameter(name.split("=")[0], name.split("=")[1]);
            else if (name.equals(SPOCK)) request.selectors(DiscoverySelectors.selectClass(SpockSample.compile()));
            else request.selectors(selector(name));
        }
        return request.build();
    }

    private static DiscoverySelector selector(String name) {
        boolean isClass = Character.isUpperCase(name.charAt(name.lastIndexOf('.') + 1));
        return isClass ? DiscoverySelectors.selectClass(name) : DiscoverySelectors.selectPackage(name);
    }
}
