package dev.verbale.cucumber;

import dev.verbale.testing.Launched;
import io.cucumber.core.cli.Main;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.platform.engine.DiscoverySelector;
import org.junit.platform.engine.discovery.DiscoverySelectors;
import org.junit.platform.launcher.LauncherSession;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;
import org.junit.platform.launcher.listeners.SummaryGeneratingListener;
import org.junit.platform.launcher.listeners.TestExecutionSummary;
import org.junit.runner.JUnitCore;
import org.junit.runner.Result;
import org.testng.ITestListener;
import org.testng.ITestResult;
import org.testng.TestNG;
import sample.SuiteOfJUnit4;
import sample.SuiteOfPlatform;
import sample.SuiteOfTestNG;

/** Runs the sample features in each of the ways that there are, and says what the runner counted. */
final class Launch {

    private Launch() {}

    /** What TestNG tells its listeners. */
    private static final class Counts implements ITestListener {
        final AtomicInteger passed = new AtomicInteger();
        final AtomicInteger failed = new AtomicInteger();
        final AtomicInteger skipped = new AtomicInteger();

        @Override
        public void onTestSuccess(ITestResult result) {
            passed.incrementAndGet();
        }

        @Override
        public void onTestFailure(ITestResult result) {
            failed.incrementAndGet();
        }

        @Override
        public void onTestSkipped(ITestResult result) {
            skipped.incrementAndGet();
        }
    }

    public static void main(String[] arguments) {
        String counts = switch (arguments[0]) {
            case "command-line" -> commandLine(Arrays.copyOfRange(arguments, 1, arguments.length));
            case "testng" -> testNG();
            case "junit4" -> junit4();
            case "vintage" -> platform(DiscoverySelectors.selectClass(SuiteOfJUnit4.class));
            case "suite" -> platform(DiscoverySelectors.selectClass(SuiteOfPlatform.class));
            default -> platform(DiscoverySelectors.selectClasspathResource("features"));
        };
        System.out.println(Launched.COUNTS + counts);
        System.exit(0);
    }

    private static String commandLine(String... more) {
        List<String> all = new ArrayList<>(List.of(more));
        all.addAll(List.of("--plugin", VerbalePlugin.class.getName(), "--glue", "sample.steps"));
        if (all.stream().noneMatch(argument -> argument.contains(".feature"))) all.add("classpath:features");
        Main.run(all.toArray(new String[0]), Launch.class.getClassLoader());
        return "0 0 0";
    }

    private static String testNG() {
        var testNG = new TestNG(false);
        var counts = new Counts();
        testNG.addListener(counts);
        testNG.setTestClasses(new Class<?>[] {SuiteOfTestNG.class});
        testNG.setVerbose(0);
        testNG.run();
        return counts.passed + " " + counts.failed + " " + counts.skipped;
    }

    private static String junit4() {
        Result result = JUnitCore.runClasses(SuiteOfJUnit4.class);
        int skipped = result.getIgnoreCount() + result.getAssumptionFailureCount();
        return (result.getRunCount() - result.getFailureCount() - result.getAssumptionFailureCount()) + " "
                + result.getFailureCount() + " " + skipped;
    }

    private static String platform(DiscoverySelector selector) {
        var summary = new SummaryGeneratingListener();
        try (LauncherSession session = LauncherFactory.openSession()) {
            session.getLauncher()
                    .execute(
                            LauncherDiscoveryRequestBuilder.request()
                                    .selectors(selector)
                                    .configurationParameter("cucumber.glue", "sample.steps")
                                    .build(),
                            summary);
        }
        TestExecutionSummary counts = summary.getSummary();
        return counts.getTestsSucceededCount() + " " + counts.getTestsFailedCount() + " "
                + (counts.getTestsAbortedCount() + counts.getTestsSkippedCount());
    }
}
