package dev.verbale.testng;

import org.testng.IConfigurationListener;
import org.testng.IExecutionListener;
import org.testng.IInvokedMethod;
import org.testng.IInvokedMethodListener;
import org.testng.ISuite;
import org.testng.ISuiteListener;
import org.testng.ITestContext;
import org.testng.ITestListener;
import org.testng.ITestNGMethod;
import org.testng.ITestResult;

/**
 * Hears what TestNG runs. Found by {@link java.util.ServiceLoader}; nobody needs to name it, and who does so has it once all the
 * same.
 *
 * <p>TestNG may make several of this class and use each for some of the calls: what is known is kept beside them.
 *
 * @since 0.2.0
 */
public final class VerbaleListener
        implements IExecutionListener, ISuiteListener, ITestListener, IConfigurationListener, IInvokedMethodListener {

    /** As {@link java.util.ServiceLoader} makes it. */
    public VerbaleListener() {}

    @Override
    public void onExecutionStart() {
        Execution.safely("an execution of TestNG begins", Execution::begins);
    }

    @Override
    public void onExecutionFinish() {
        Execution.safely("an execution of TestNG ends", Execution::ends);
    }

    @Override
    public void onStart(ISuite suite) {
        Execution.safely("a suite of TestNG begins", execution -> execution.begins(suite));
    }

    @Override
    public void onFinish(ISuite suite) {
        Execution.safely("a suite of TestNG ends", execution -> execution.ends(suite));
    }

    @Override
    public void onStart(ITestContext context) {
        Execution.safely("a test of a suite begins", execution -> execution.begins(context));
    }

    @Override
    public void onFinish(ITestContext context) {
        Execution.safely("a test of a suite ends", execution -> execution.ends(context));
    }

    @Override
    public void beforeConfiguration(ITestResult result, ITestNGMethod test) {
        Execution.safely("a fixture of TestNG begins", execution -> execution.fixtureBegins(result, test));
    }

    @Override
    public void onConfigurationSuccess(ITestResult result) {
        fixtureEnds(result);
    }

    @Override
    public void onConfigurationFailure(ITestResult result) {
        fixtureEnds(result);
    }

    @Override
    public void onConfigurationSkip(ITestResult result) {
        fixtureEnds(result);
    }

    private static void fixtureEnds(ITestResult result) {
        Execution.safely("a fixture of TestNG ends", execution -> execution.fixtureEnds(result));
    }

    @Override
    public void onTestStart(ITestResult result) {
        Execution.safely("a test of TestNG begins", execution -> execution.testBegins(result));
    }

    @Override
    public void beforeInvocation(IInvokedMethod method, ITestResult result) {
        Execution.safely("a method of TestNG begins", execution -> execution.methodBegins(method, result));
    }

    @Override
    public void afterInvocation(IInvokedMethod method, ITestResult result) {
        Execution.safely("a method of TestNG ends", execution -> execution.methodEnds(method, result));
    }

    @Override
    public void onTestSuccess(ITestResult result) {
        testEnds(result);
    }

    @Override
    public void onTestFailure(ITestResult result) {
        testEnds(result);
    }

    @Override
    public void onTestFailedWithTimeout(ITestResult result) {
        testEnds(result);
    }

    @Override
    public void onTestFailedButWithinSuccessPercentage(ITestResult result) {
        testEnds(result);
    }

    @Override
    public void onTestSkipped(ITestResult result) {
        testEnds(result);
    }

    private static void testEnds(ITestResult result) {
        Execution.safely("a test of TestNG ends", execution -> execution.testEnds(result));
    }
}
