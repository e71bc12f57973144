package dev.verbale.steps;

import dev.verbale.Recorder;
import dev.verbale.Step;
import dev.verbale.Verbale;
import dev.verbale.spi.Context;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Parameter;
import java.util.Locale;
import java.util.Map;
import net.bytebuddy.implementation.bind.annotation.AllArguments;
import net.bytebuddy.implementation.bind.annotation.FieldValue;
import net.bytebuddy.implementation.bind.annotation.Origin;
import net.bytebuddy.implementation.bind.annotation.RuntimeType;
import org.jspecify.annotations.Nullable;

/**
 * Makes steps of calls. Public for the classes that are made or changed, and for no others.
 *
 * @since 0.2.0
 */
public final class StepMethodRecorder {

    /** A shorter secret would mask ordinary words all over the run. */
    private static final int SHORTEST_SECRET = 4;

    private static volatile StepPackages byAgent = new StepPackages(Map.of());

    private StepMethodRecorder() {}

    /** Every call of a step method comes here. */
    @RuntimeType
    public static @Nullable Object call(
            @Origin(cache = true) Method method,
            @AllArguments @Nullable Object[] arguments,
            @FieldValue("verbale$original") Object original)
            throws Throwable {
        if (!method.isAnnotationPresent(StepMethod.class)) return invoke(method, original, arguments);
        Step step = begin(method, arguments);
        Object result;
        try {
            result = invoke(method, original, arguments);
        } catch (Throwable failure) {
            step.failed(failure);
            throw failure;
        }
        step.passed();
        return result;
    }

    /** The step of a call that begins. Nothing gets out of here: what it asks is the suite's own. */
    public static Step begin(Method method, @Nullable Object[] arguments) {
        try {
            boolean[] secret = secret(method, arguments.length);
            for (int i = 0; i < arguments.length; i++) {
                String text = secret[i] ? shown(arguments[i]) : "";
                if (text.length() >= SHORTEST_SECRET) Verbale.secret(text);
            }
            StepMethod stepMethod = method.getAnnotation(StepMethod.class);
            String template = stepMethod == null || stepMethod.value().isEmpty()
                    ? inPlainWords(method.getName())
                    : stepMethod.value();
            return Verbale.begin(filled(template, secret, arguments));
        } catch (RuntimeException | StackOverflowError | LinkageError broken) {
            return method == null ? Step.NONE : Verbale.begin(inPlainWords(method.getName()));
        }
    }

    /** The parameters that the annotation names, and those whose own name is a secret's, where the compiler kept it. */
    private static boolean[] secret(Method method, int count) {
        var secret = new boolean[count];
        StepMethod stepMethod = method.getAnnotation(StepMethod.class);
        if (stepMethod != null)
            for (int position : stepMethod.secret()) if (position >= 0 && position < count) secret[position] = true;
        Parameter[] parameters = method.getParameters();
        for (int i = 0; i < Math.min(count, parameters.length); i++)
            secret[i] |= parameters[i].isNamePresent() && Context.current().isSecretName(parameters[i].getName());
        return secret;
    }

    /** Ends the step that {@link #begin} gave, or nothing where that could not give one. */
    public static void end(@Nullable Object step, @Nullable Throwable thrown) {
        if (!(step instanceof Step begun)) return;
        if (thrown == null) begun.passed();
        else begun.failed(thrown);
    }

    /** From now on the classes of these packages tell their calls themselves. */
    static void agentRecords(StepPackages packages) {
        byAgent = packages;
    }

    static boolean isRecordedByAgent(Class<?> type) {
        return byAgent.holds(type.getName());
    }

    private static @Nullable Object invoke(Method method, Object original, @Nullable Object[] arguments)
            throws Throwable {
        try {
            method.setAccessible(true);
            return method.invoke(original, arguments);
        } catch (InvocationTargetException thrown) {
            throw thrown.getCause() == null ? thrown : thrown.getCause(); // the original's own exception
        }
    }

    private static String inPlainWords(String methodName) {
        return methodName
                .replaceAll("(?<=[a-z0-9])(?=[A-Z])", " ")
                .replace('_', ' ')
                .toLowerCase(Locale.ROOT);
    }

    private static String filled(String template, boolean[] secret, @Nullable Object[] arguments) {
        String name = template;
        for (int i = 0; i < arguments.length; i++) {
            String position = "{" + i + "}";
            if (name.contains(position)) name = name.replace(position, secret[i] ? Recorder.MASK : shown(arguments[i]));
        }
        return name;
    }

    private static String shown(@Nullable Object argument) {
        try {
            return String.valueOf((Object) (argument == null ? null : argument.toString()));
        } catch (RuntimeException | Error broken) {
            return "(" + broken.getClass().getSimpleName() + ")";
        }
    }
}
