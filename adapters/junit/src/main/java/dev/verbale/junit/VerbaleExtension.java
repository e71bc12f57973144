package dev.verbale.junit;

import dev.verbale.ChecksFailed;
import dev.verbale.ExpectedFailure;
import dev.verbale.Step;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.Entered;
import dev.verbale.vocabulary.StepKind;
import java.lang.reflect.Method;
import java.lang.reflect.Parameter;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.TestInfo;
import org.junit.jupiter.api.TestReporter;
import org.junit.jupiter.api.extension.DynamicTestInvocationContext;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.InvocationInterceptor;
import org.junit.jupiter.api.extension.ReflectiveInvocationContext;
import org.junit.platform.engine.UniqueId;
import org.opentest4j.TestAbortedException;

/**
 * Stands around what Jupiter invokes: fixtures become steps, a failure's evidence is taken before any teardown, and the
 * arguments of a parameterized test become its data.
 *
 * <p>One line registers it for a whole suite, in {@code src/test/resources/junit-platform.properties}:
 *
 * <pre>junit.jupiter.extensions.autodetection.enabled=true</pre>
 *
 * <p>or one annotation for a class: {@code @ExtendWith(VerbaleExtension.class)}. Registered in both ways it still records
 * once.
 *
 * @since 0.2.0
 */
public final class VerbaleExtension implements InvocationInterceptor {

    private static final String PARAMETERIZED = "org.junit.jupiter.params.ParameterizedTest";
    private static final List<Class<?>> NO_DATA = List.of(TestInfo.class, TestReporter.class, RepetitionInfo.class);

    private final AdapterRecorder recorder = AdapterRecorder.current();

    @Override
    public void interceptBeforeAllMethod(
            Invocation<@Nullable Void> invocation, ReflectiveInvocationContext<Method> call, ExtensionContext context)
            throws Throwable {
        fixture(StepKind.SET_UP, invocation, call, context);
    }

    @Override
    public void interceptBeforeEachMethod(
            Invocation<@Nullable Void> invocation, ReflectiveInvocationContext<Method> call, ExtensionContext context)
            throws Throwable {
        fixture(StepKind.SET_UP, invocation, call, context);
    }

    @Override
    public void interceptAfterEachMethod(
            Invocation<@Nullable Void> invocation, ReflectiveInvocationContext<Method> call, ExtensionContext context)
            throws Throwable {
        fixture(StepKind.TEAR_DOWN, invocation, call, context);
    }

    @Override
    public void interceptAfterAllMethod(
            Invocation<@Nullable Void> invocation, ReflectiveInvocationContext<Method> call, ExtensionContext context)
            throws Throwable {
        fixture(StepKind.TEAR_DOWN, invocation, call, context);
    }

    @Override
    public void interceptTestMethod(
            Invocation<@Nullable Void> invocation, ReflectiveInvocationContext<Method> call, ExtensionContext context)
            throws Throwable {
        test(invocation, call.getExecutable(), context);
    }

    @Override
    public void interceptTestTemplateMethod(
            Invocation<@Nullable Void> invocation, ReflectiveInvocationContext<Method> call, ExtensionContext context)
            throws Throwable {
        if (recorder.isRecording() && !isNobodys(context) && isParameterized(call.getExecutable())) {
            try (Entered entered = OpenScopes.enter(recorder, context.getUniqueId())) {
                data(call.getExecutable().getParameters(), call.getArguments());
            }
        }
        test(invocation, call.getExecutable(), context);
    }

    @Override
    public void interceptDynamicTest(
            Invocation<@Nullable Void> invocation, DynamicTestInvocationContext call, ExtensionContext context)
            throws Throwable {
        test(invocation, null, context);
    }

    private void fixture(
            StepKind kind,
            Invocation<@Nullable Void> invocation,
            ReflectiveInvocationContext<Method> call,
            ExtensionContext context)
            throws Throwable {
        if (isNobodys(context)) {
            invocation.proceed();
            return;
        }
        try (Entered entered = OpenScopes.enter(recorder, context.getUniqueId())) {
            String name = call.getExecutable().getName().replace('_', ' '); // as display names do
            Step step = recorder.startStep(kind, name);
            try {
                invocation.proceed();
            } catch (Throwable failure) {
                step.failed(failure);
                if (failure instanceof OutOfMemoryError full) OpenScopes.endAll(recorder, context.getUniqueId(), full);
                throw failure;
            }
            step.passed();
        }
    }

    private void test(Invocation<@Nullable Void> invocation, @Nullable Method method, ExtensionContext context)
            throws Throwable {
        if (isNobodys(context)) {
            invocation.proceed();
            return;
        }
        try (Entered entered = OpenScopes.enter(recorder, context.getUniqueId())) {
            recorder.gatherChecks();
            try {
                invocation.proceed();
                ChecksFailed checks = recorder.failedChecks();
                if (checks != null) throw checks;
            } catch (Throwable failure) {
                if (isExpected(method, failure)) return;
                recorder.captureEvidence(failure);
                if (failure instanceof OutOfMemoryError full) OpenScopes.endAll(recorder, context.getUniqueId(), full);
                throw failure;
            }
        }
    }

    /** It belongs to a launch that is not recorded, such as one that a test makes: then it is what that test does. */
    private static boolean isNobodys(ExtensionContext context) {
        try {
            return OpenScopes.find(UniqueId.parse(context.getUniqueId())) == null;
        } catch (RuntimeException | Error odd) { // of a context that is none of JUnit's own
            return true;
        }
    }

    /** An assumption is no failure, and the JVM's own troubles are nobody's expectation. */
    private boolean isExpected(@Nullable Method method, Throwable failure) {
        ExpectedFailure expected = method == null ? null : method.getAnnotation(ExpectedFailure.class);
        if (expected == null || failure instanceof TestAbortedException || failure instanceof VirtualMachineError)
            return false;
        recorder.failedAsExpected(expected.value(), failure);
        return true;
    }

    private void data(Parameter[] parameters, List<Object> arguments) {
        for (int i = 0; i < parameters.length && i < arguments.size(); i++) {
            if (!NO_DATA.contains(parameters[i].getType())) recorder.data(parameters[i].getName(), arguments.get(i));
        }
    }

    private static boolean isParameterized(Method method) {
        return Arrays.stream(method.getAnnotations())
                .anyMatch(a -> a.annotationType().getName().equals(PARAMETERIZED));
    }
}
