package dev.verbale.testng;

import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.SharedContainer;
import dev.verbale.spi.TestAnnotations;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.Outcome;
import java.lang.reflect.Method;
import java.util.Arrays;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.testng.ITestNGMethod;
import org.testng.ITestResult;

/**
 * Begins and ends tests. TestNG runs the set-up of a test before it says that the test begins, and its tear-down after it said how it
 * ended; all of that is on one thread, and what a thread does next ends what it did before.
 */
final class RecordedTests {

    /** What depends on such a test runs. */
    private static final Set<Outcome> GOOD = Set.of(Outcome.PASSED, Outcome.EXPECTED_FAILURE);

    private final AdapterRecorder recorder;
    private final Map<Method, TestAnnotations> annotationsOf = new ConcurrentHashMap<>();
    private final ThreadLocal<@Nullable OpenTest> ofThread = new ThreadLocal<>();

    /** On this thread a test was given up, and another attempt follows. */
    private final ThreadLocal<@Nullable OpenTest> retried = new ThreadLocal<>();

    RecordedTests(AdapterRecorder recorder) {
        this.recorder = recorder;
    }

    /** The test of this thread, where its set-up, its body or its tear-down runs. */
    @Nullable
    OpenTest current() {
        return ofThread.get();
    }

    /** The test of this thread, where it is one of {@code method} that has no end; else one that begins now. */
    OpenTest of(RunningContext context, ITestNGMethod method) {
        OpenTest here = ofThread.get();
        if (here != null && here.end == null && here.method.equals(method)) return here;
        leave();
        SharedContainer container = context.of(method.getTestClass());
        String key = Names.key(context.context, method);
        TestDescriptor descriptor = descriptor(method, key, method.getMethodName());
        Scope scope = recorder.startTest(container.scope(), descriptor);
        TestAnnotations annotations =
                annotationsOf.computeIfAbsent(method.getConstructorOrMethod().getMethod(), TestAnnotations::of);
        var begun = new OpenTest(context, method, scope, container, annotations, key);
        begun.lastAt = recorder.now();
        context.open.add(begun);
        ofThread.set(begun);
        String description = method.getDescription();
        if (description != null && !description.isEmpty()) recorder.about(description);
        annotations.recordAbout(recorder);
        return begun;
    }

    private static TestDescriptor descriptor(ITestNGMethod method, String key, String name) {
        return TestDescriptor.of(key, name)
                .className(method.getTestClass().getRealClass().getName())
                .methodName(method.getMethodName())
                .tags(Arrays.asList(method.getGroups()))
                .build();
    }

    /** Its data is known now. */
    void identify(RunningContext context, OpenTest test, ITestResult result) {
        if (test.identified) return;
        test.identified = true;
        ITestNGMethod method = test.method;
        int row = Rows.number(result);
        String values = Rows.text(recorder, result);
        String plain = test.key;
        OpenTest before = retried.get();
        retried.remove();
        String withRow = row == 0 ? plain : plain + "#" + row;
        int invocation = context.invocation(plain);
        boolean again = before != null
                && before.method.equals(method)
                && before.key.equals(invocation == 0 ? withRow : before.key);
        String invoked = invocation == 0 ? "" : "#" + invocation;
        test.key = again ? before.key : withRow + invoked;
        String name = name(method, result);
        if (row != 0) name += " [" + row + "]";
        else if (!invoked.isEmpty()) name += " invocation " + test.key.substring(test.key.lastIndexOf('#') + 1);
        if (!values.isEmpty()) name += " " + values;
        recorder.identifyTest(test.scope, descriptor(method, test.key, name));
        Rows.record(recorder, result);
    }

    /** A test was skipped before it began. Of rows that are, TestNG tells of each, and says of all that they are the first, or nothing. */
    void skipped(RunningContext context, OpenTest test) {
        int number = context.skipped(test.key);
        if (number == 1) return;
        test.key = test.key.replaceFirst("#\\d+$", "") + "#" + number;
        recorder.identifyTest(
                test.scope, descriptor(test.method, test.key, test.method.getMethodName() + " [" + number + "]"));
    }

    /** The test's own name where its object gives one, with what a factory gave to the object. */
    private String name(ITestNGMethod method, ITestResult result) {
        String given = result.getTestName();
        String name = given == null || given.isEmpty() ? method.getMethodName() : given;
        Object[] made = result.getFactoryParameters();
        if (made == null || made.length == 0) return name;
        return name + " (" + recorder.shown(made.length == 1 ? made[0] : made, 60) + ")";
    }

    /** TestNG said how it ended. Its tear-down follows, where it has any. */
    void ended(RunningContext context, OpenTest test, TestEnd end, boolean again) {
        test.end = end;
        test.lastAt = recorder.now();
        if (again) retried.set(test);
        else if (!isGood(end)) context.failed(test.method, test.key);
        test.tearDowns = tearDowns(test.method);
        if (test.tearDowns == 0) leave();
    }

    /** How many tear-down methods the test's own object has: of a class that a factory makes objects of, TestNG lists those of all of them. */
    private static int tearDowns(ITestNGMethod test) {
        int count = 0;
        for (ITestNGMethod one : test.getTestClass().getAfterTestMethods())
            if (one.getInstance() == test.getInstance()) count++;
        return count;
    }

    private static boolean isGood(TestEnd end) {
        return end.outcome() != null && GOOD.contains(end.outcome());
    }

    /** A tear-down method of the test is over. */
    void tornDown(OpenTest test) {
        test.lastAt = recorder.now();
        test.container.lastedUntilNow();
        if (--test.tearDowns == 0) leave();
    }

    /** This thread goes on to something else: its test, where it has one, is over. */
    void leave() {
        OpenTest here = ofThread.get();
        if (here == null || here.end == null) return; // it runs TestNG itself, and goes on afterwards
        ofThread.remove();
        end(here);
    }

    /** All that is open in {@code context} is over, on whatever thread it ran. */
    void end(RunningContext context) {
        leave();
        for (OpenTest test : context.open) end(test);
    }

    private void end(OpenTest test) {
        TestEnd how = test.end;
        if (how == null) return; // TestNG never said how; so it is unfinished
        synchronized (test) {
            if (test.over) return;
            test.over = true;
        }
        test.context.open.remove(test);
        recorder.endTest(test.scope, how.at(test.lastAt));
        test.container.lastedUntilNow();
    }
}
