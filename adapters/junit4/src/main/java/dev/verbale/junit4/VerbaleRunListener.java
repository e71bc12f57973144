package dev.verbale.junit4;

import dev.verbale.event.FactStated;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.SharedContainer;
import dev.verbale.spi.TestEnd;
import dev.verbale.spi.TestLifecycle;
import java.lang.reflect.Method;
import java.util.function.Consumer;
import org.junit.Ignore;
import org.junit.runner.Description;
import org.junit.runner.Result;
import org.junit.runner.notification.Failure;
import org.junit.runner.notification.RunListener;

/**
 * Hears what JUnit 4 runs. A build tool is told of it in one line; for Surefire and Failsafe before 3.6, which run JUnit 4 itself
 *
 * <pre>{@code
 * <properties><property>
 *   <name>listener</name><value>dev.verbale.junit4.VerbaleRunListener</value>
 * </property></properties>
 * }</pre>
 *
 * <p>JUnit 4 tells a listener of a failure when the tear-down is over: {@link VerbaleRule} captures evidence earlier.
 *
 * @since 0.2.0
 */
@RunListener.ThreadSafe
public final class VerbaleRunListener extends RunListener {

    private static final String ONLY_CLASSES =
            "tests of JUnit 4, of which the build tool tells this listener nothing but their classes; put verbale-junit on the class path";

    /** As a build tool makes it. */
    public VerbaleRunListener() {}

    private static void safely(Description description, String what, Consumer<AdapterRecorder> work) {
        if (description == null) return;
        AdapterRecorder recorder = OpenTests.recorderFor(description);
        recorder.safely("hearing that " + what, () -> work.accept(recorder));
    }

    @Override
    public void testStarted(Description description) {
        safely(description, "a test of JUnit 4 begins", recorder -> {
            if (OpenTests.isOnlyAClass(description)) {
                recorder.claim("junit4"); // it is there and registered, and that is not what is missing
                recorder.fact(FactStated.NOT_RECORDED, ONLY_CLASSES);
            } else if (!recorder.isInTest()) {
                recorder.claim("junit4");
                OpenTests.start(recorder, description);
            }
        });
    }

    @Override
    public void testFailure(Failure failure) {
        failed(failure, false);
    }

    @Override
    public void testAssumptionFailure(Failure failure) {
        failed(failure, true);
    }

    private static void failed(Failure failure, boolean isAssumption) {
        if (failure == null) return;
        Description description = failure.getDescription();
        safely(description, "a test of JUnit 4 failed", recorder -> {
            OpenTests.OpenTest open = OpenTests.current(description);
            if (open == null) {
                if (!recorder.isInTest()) outsideTests(recorder, description, failure.getException(), isAssumption);
                return;
            }
            if (isAssumption) {
                if (open.assumption == null) open.assumption = failure.getException();
                return;
            }
            open.failures.add(failure.getException());
            recorder.captureEvidence(failure.getException());
        });
    }

    /** A class broke, or gave up, before its tests or after them. */
    private static void outsideTests(
            AdapterRecorder recorder, Description description, Throwable failure, boolean isAssumption) {
        SharedContainer container = OpenTests.container(recorder, description);
        if (!isAssumption) container.brokenBy("of the class", failure);
        if (isAssumption)
            for (Description test : description.getChildren()) skipped(recorder, test, TestEnd.aborted(failure));
    }

    @Override
    public void testIgnored(Description description) {
        safely(description, "a test of JUnit 4 is ignored", recorder -> {
            if (!recorder.isInTest()) ignored(recorder, description, reason(description));
        });
    }

    private static void ignored(AdapterRecorder recorder, Description description, String reason) {
        boolean isClass = description.getMethodName() == null && description.getTestClass() != null;
        if (isClass && description.isTest()) // JUnit looks into no class that is ignored
        OpenTests.testsOf(description.getTestClass()).forEach(test -> ignored(recorder, test, reason));
        else if (description.isTest()) skipped(recorder, description, TestEnd.skipped(reason));
        for (Description inner : description.getChildren()) ignored(recorder, inner, reason);
    }

    private static void skipped(AdapterRecorder recorder, Description test, TestEnd end) {
        if (test.isTest() && test.getTestClass() != null) OpenTests.end(recorder, OpenTests.start(recorder, test), end);
        else for (Description inner : test.getChildren()) skipped(recorder, inner, end);
    }

    private static String reason(Description description) {
        Method method = OpenTests.method(description);
        Ignore ignore = method == null ? null : method.getAnnotation(Ignore.class);
        if (ignore == null) ignore = description.getTestClass().getAnnotation(Ignore.class);
        return ignore == null || ignore.value().isEmpty() ? "ignored" : ignore.value();
    }

    @Override
    public void testFinished(Description description) {
        safely(description, "a test of JUnit 4 ends", recorder -> {
            OpenTests.OpenTest open = OpenTests.current(description);
            if (open != null) OpenTests.end(recorder, open, end(open));
        });
    }

    private static TestEnd end(OpenTests.OpenTest test) {
        if (!test.failures.isEmpty())
            return TestEnd.threwAll(test.failures); // also where an assumption did not hold before
        Throwable assumption = test.assumption;
        return assumption == null ? test.annotations.passed() : TestEnd.aborted(assumption);
    }

    @Override
    public void testSuiteFinished(Description description) {
        safely(description, "a class of JUnit 4 ends", recorder -> OpenTests.endContainer(description.getTestClass()));
    }

    @Override
    public void testRunFinished(Result result) {
        AdapterRecorder.currentIfOpen()
                .filter(open -> !open.isClaimed("junit-platform") && !open.isInTest())
                .ifPresent(open -> {
                    OpenTests.endAll();
                    ((TestLifecycle) open).sessionEnded();
                });
    }
}
