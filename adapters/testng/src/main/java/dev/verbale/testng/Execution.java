package dev.verbale.testng;

import dev.verbale.ChecksFailed;
import dev.verbale.ExpectedFailure;
import dev.verbale.Scope;
import dev.verbale.Step;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.Entered;
import dev.verbale.spi.SharedContainer;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.StepKind;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import org.testng.IInvokedMethod;
import org.testng.ISuite;
import org.testng.ITestContext;
import org.testng.ITestNGMethod;
import org.testng.ITestResult;
import org.testng.Reporter;

/** What TestNG runs in this JVM, in the recorder's words. */
final class Execution {

    /** While TestNG only looks for tests, it says that each of them passed. */
    private static final String DRY_RUN = "testng.mode.dryrun";

    private static volatile @Nullable Execution current;

    private final AdapterRecorder recorder;
    private final RecordedTests tests;
    private final Map<ISuite, RunningSuite> suites = new ConcurrentHashMap<>();
    private final Map<ITestContext, RunningContext> contexts = new ConcurrentHashMap<>();
    private final ThreadLocal<@Nullable Fixture> fixtures = new ThreadLocal<>();

    /** A fixture that runs on this thread, and lies in {@code container} or in {@code test}. */
    private record Fixture(
            SharedContainer container, @Nullable OpenTest test, Entered entered, Step step) {}

    private Execution(AdapterRecorder recorder) {
        this.recorder = recorder;
        this.tests = new RecordedTests(recorder);
    }

    /** Has {@code work} done, unless TestNG only looks for tests; nothing that it does may get into the suite. */
    static void safely(String what, Consumer<Execution> work) {
        if (Boolean.getBoolean(DRY_RUN)) return;
        Execution known = current;
        if (known == null) known = open();
        if (!known.recorder.isRecording()) return;
        Execution execution = known;
        execution.recorder.safely("hearing that " + what, () -> work.accept(execution));
    }

    private static synchronized Execution open() {
        Execution known = current;
        if (known != null) return known;
        var opened = new Execution(AdapterRecorder.current());
        current = opened;
        return opened;
    }

    void begins() {
        recorder.claim("testng");
    }

    void ends() {
        tests.leave();
        if (suites.isEmpty()) recorder.sessionEnded();
    }

    /** A test may run TestNG itself, to see what it does with some subject; that is the test's own affair. */
    void begins(ISuite suite) {
        if (!recorder.isInTest()) suites.put(suite, new RunningSuite(recorder, suite));
    }

    void ends(ISuite suite) {
        RunningSuite running = suites.remove(suite);
        if (running == null) return;
        tests.leave();
        running.end();
    }

    void begins(ITestContext context) {
        RunningSuite suite = suites.get(context.getSuite());
        if (suite != null) contexts.put(context, new RunningContext(recorder, suite, context));
    }

    void ends(ITestContext context) {
        RunningContext running = contexts.remove(context);
        if (running == null) return;
        tests.end(running);
        running.end();
    }

    private @Nullable RunningContext context(ITestResult result) {
        ITestContext context = result.getTestContext();
        return context == null ? null : contexts.get(context);
    }

    // Fixtures.

    void fixtureBegins(ITestResult result, @Nullable ITestNGMethod test) {
        if (!isOurs(result)) return;
        ITestNGMethod method = result.getMethod();
        OpenTest open = testOf(result, test);
        SharedContainer container = open == null ? container(result) : open.container;
        Scope scope = open == null ? container.scope() : open.scope;
        Entered entered = recorder.enter(scope);
        Step step = recorder.startStep(isTearDown(method) ? StepKind.TEAR_DOWN : StepKind.SET_UP, name(method));
        fixtures.set(new Fixture(container, open, entered, step));
    }

    /** The test that a fixture belongs to; null where it is that of a class, a group, or more. */
    private @Nullable OpenTest testOf(ITestResult result, @Nullable ITestNGMethod test) {
        ITestNGMethod fixture = result.getMethod();
        RunningContext context = context(result);
        if (fixture.isAfterMethodConfiguration()) return tests.current();
        if (fixture.isBeforeMethodConfiguration() && test != null && context != null) return tests.of(context, test);
        tests.leave();
        return null;
    }

    private SharedContainer container(ITestResult result) {
        ITestNGMethod fixture = result.getMethod();
        RunningContext context = context(result);
        if (context == null || fixture.isBeforeSuiteConfiguration() || fixture.isAfterSuiteConfiguration())
            return suite(result).own();
        boolean wide = fixture.isBeforeTestConfiguration()
                || fixture.isAfterTestConfiguration()
                || fixture.isBeforeGroupsConfiguration()
                || fixture.isAfterGroupsConfiguration();
        return wide ? context.own() : context.of(fixture.getTestClass());
    }

    private RunningSuite suite(ITestResult result) {
        ITestContext context = result.getTestContext();
        RunningSuite known = context == null ? null : suites.get(context.getSuite());
        if (known != null) return known;
        return suites.values().iterator().next(); // a fixture of a suite knows no test of it
    }

    /** TestNG may run Cucumber, of which its own adapter hears more. */
    private boolean isCucumbers(ITestResult result) {
        ITestNGMethod method = result.getMethod();
        String declaredBy = method.getConstructorOrMethod().getDeclaringClass().getName();
        return declaredBy.startsWith("io.cucumber.") && (!method.isTest() || recorder.isClaimed("cucumber"));
    }

    /** Whether it belongs to a suite that is recorded. */
    private boolean isOurs(ITestResult result) {
        if (isCucumbers(result)) return false;
        ITestContext context = result.getTestContext();
        return context == null ? suites.size() == 1 : suites.containsKey(context.getSuite());
    }

    void fixtureEnds(ITestResult result) {
        if (!isOurs(result)) return;
        Fixture fixture = fixtures.get();
        fixtures.remove();
        OpenTest test = fixture == null ? tests.current() : fixture.test();
        if (fixture != null) {
            end(fixture, result);
            fixture.entered().close();
            fixture.container().lastedUntilNow();
        }
        if (test != null && result.getMethod().isAfterMethodConfiguration()) tests.tornDown(test);
    }

    private static void end(Fixture fixture, ITestResult result) {
        Throwable thrown = result.getThrowable();
        if (result.getStatus() == ITestResult.SUCCESS) fixture.step().passed();
        else if (result.getStatus() == ITestResult.SKIP && thrown == null)
            fixture.step().skipped("TestNG skipped it, for another fixture failed");
        else {
            Throwable failure = thrown == null ? new IllegalStateException("failed without a reason") : thrown;
            fixture.step().failed(failure);
            if (result.getStatus() == ITestResult.FAILURE)
                fixture.container().brokenBy(name(result.getMethod()), failure);
        }
    }

    private static String name(ITestNGMethod fixture) {
        return fixture.getMethodName().replace('_', ' ');
    }

    private static boolean isTearDown(ITestNGMethod fixture) {
        return fixture.isAfterMethodConfiguration()
                || fixture.isAfterClassConfiguration()
                || fixture.isAfterTestConfiguration()
                || fixture.isAfterSuiteConfiguration()
                || fixture.isAfterGroupsConfiguration();
    }

    // Tests.

    void testBegins(ITestResult result) {
        test(result);
    }

    private @Nullable OpenTest test(ITestResult result) {
        RunningContext context = context(result);
        if (context == null || isCucumbers(result)) return null;
        OpenTest test = tests.of(context, result.getMethod());
        tests.identify(context, test, result);
        return test;
    }

    void methodBegins(IInvokedMethod method, ITestResult result) {
        if (!method.isTestMethod() || result.getStatus() == ITestResult.SKIP) return;
        OpenTest test = test(result);
        if (test == null) return;
        test.begun = true;
        recorder.gatherChecks();
    }

    void methodEnds(IInvokedMethod method, ITestResult result) {
        if (!isOurs(result)) return;
        if (!method.isTestMethod()) {
            logReported(result);
            if (result.getStatus() == ITestResult.FAILURE && result.getThrowable() != null)
                recorder.captureEvidence(result.getThrowable());
            return;
        }
        OpenTest test = tests.current();
        if (test == null || !test.begun) return;
        logReported(result);
        ChecksFailed checks = recorder.failedChecks();
        if (checks != null && result.getStatus() == ITestResult.SUCCESS) {
            result.setThrowable(checks);
            result.setStatus(ITestResult.FAILURE);
        }
        Throwable thrown = result.getThrowable();
        if (result.getStatus() != ITestResult.FAILURE || thrown == null) return;
        Optional<ExpectedFailure> expected = test.annotations.expectedFailure();
        if (expected.isPresent() && !(thrown instanceof VirtualMachineError)) {
            recorder.failedAsExpected(expected.get().value(), thrown);
            result.setStatus(ITestResult.SUCCESS);
        } else {
            recorder.captureEvidence(thrown);
            for (AssertionError one : SoftFailures.of(thrown)) recorder.checkFailed(SoftFailures.name(one), one);
        }
    }

    /** What was said through TestNG's own logging call; it keeps the lines, and tells nobody. */
    private void logReported(ITestResult result) {
        List<String> lines = Reporter.getOutput(result);
        if (lines != null) lines.forEach(recorder::log);
    }

    void testEnds(ITestResult result) {
        RunningContext context = context(result);
        OpenTest test = test(result);
        if (context == null || test == null) return;
        boolean again = result.getStatus() == ITestResult.SKIP && result.wasRetried();
        if (result.getStatus() == ITestResult.SKIP && !again && !test.begun) tests.skipped(context, test);
        tests.ended(context, test, end(context, test, result), again);
    }

    private static TestEnd end(RunningContext context, OpenTest test, ITestResult result) {
        Throwable thrown = result.getThrowable();
        Throwable failure = thrown == null ? new IllegalStateException("failed without a reason") : thrown;
        return switch (result.getStatus()) {
            case ITestResult.SUCCESS -> test.annotations.passed();
            case ITestResult.SUCCESS_PERCENTAGE_FAILURE ->
                TestEnd.expectedFailure(
                        "It may fail: its success percentage is " + test.method.getSuccessPercentage(), failure);
            case ITestResult.SKIP -> {
                if (result.wasRetried()) yield TestEnd.threw(failure);
                yield test.begun ? TestEnd.aborted(thrown) : Skips.of(context, result);
            }
            default -> TestEnd.threw(failure);
        };
    }
}
