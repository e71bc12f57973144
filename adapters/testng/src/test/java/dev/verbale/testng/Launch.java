package dev.verbale.testng;

import dev.verbale.testing.Launched;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.testng.ITestListener;
import org.testng.ITestResult;
import org.testng.TestNG;
import org.testng.xml.XmlSuite;

/** Runs classes or a {@code testng.xml} with TestNG, as a suite's own {@code main} does, and says what TestNG counted. */
final class Launch {

    private Launch() {}

    /** What TestNG tells its listeners; one that it retries is told as skipped. */
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
        public void onTestFailedButWithinSuccessPercentage(ITestResult result) {
            passed.incrementAndGet();
        }

        @Override
        public void onTestSkipped(ITestResult result) {
            if (!result.wasRetried()) skipped.incrementAndGet();
        }
    }

    /** Classes and more of {@link TestNG}; or, from {@code -methods} on, what its own command line takes. */
    public static void main(String[] arguments) throws Exception {
        if (arguments[0].equals("-methods")) {
            var own = new Counts();
            TestNG.privateMain(arguments, own);
            System.out.println(Launched.COUNTS + own.passed + " " + own.failed + " " + own.skipped);
            return;
        }
        var testNG = new TestNG(false);
        var counts = new Counts();
        testNG.addListener(counts);
        List<Class<?>> classes = new ArrayList<>();
        for (String argument : arguments) {
            if (argument.startsWith("parallel=")) {
                testNG.setParallel(XmlSuite.ParallelMode.getValidParallel(argument.substring(9)));
                testNG.setThreadCount(4);
            } else if (argument.endsWith(".xml")) testNG.setTestSuites(List.of(argument));
            else if (argument.startsWith("+"))
                testNG.addListener((org.testng.ITestNGListener)
                        Class.forName(argument.substring(1)).getConstructor().newInstance());
            else classes.add(Class.forName(argument));
        }
        if (!classes.isEmpty()) testNG.setTestClasses(classes.toArray(new Class<?>[0]));
        testNG.setVerbose(0);
        testNG.run();
        System.out.println(Launched.COUNTS + counts.passed + " " + counts.failed + " " + counts.skipped);
    }
}
