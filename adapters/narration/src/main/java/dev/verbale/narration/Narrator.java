package dev.verbale.narration;

import dev.verbale.Verbale;
import dev.verbale.recorder.Step;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import net.bytebuddy.implementation.bind.annotation.AllArguments;
import net.bytebuddy.implementation.bind.annotation.FieldValue;
import net.bytebuddy.implementation.bind.annotation.Origin;
import net.bytebuddy.implementation.bind.annotation.RuntimeType;
import org.jspecify.annotations.Nullable;

/** Makes steps of calls. Public for the classes that are made or changed, and for no others. */
public final class Narrator {

    private static final String MASK = "[masked]";

    private static volatile NarratedPackages byAgent = new NarratedPackages(Map.of());

    private Narrator() {}

    /** Every call on a narrating object comes here. */
    @RuntimeType
    public static @Nullable Object call(
            @Origin(cache = true) Method method,
            @AllArguments @Nullable Object[] arguments,
            @FieldValue("verbale$original") Object original)
            throws Throwable {
        if (!method.isAnnotationPresent(Narrated.class)) return invoke(method, original, arguments);
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

    /** The step of a call that begins. */
    public static Step begin(Method method, @Nullable Object[] arguments) {
        Narrated narrated = method.getAnnotation(Narrated.class);
        int[] secrets = narrated == null ? new int[0] : narrated.secret();
        for (int secret : secrets)
            if (secret < arguments.length && arguments[secret] != null)
                Verbale.secret(String.valueOf(arguments[secret]));
        String template =
                narrated == null || narrated.value().isEmpty() ? inPlainWords(method.getName()) : narrated.value();
        return Verbale.begin(filled(template, secrets, arguments));
    }

    /** Ends the step that {@link #begin} gave, or nothing where that could not give one. */
    public static void end(@Nullable Object step, @Nullable Throwable thrown) {
        if (!(step instanceof Step begun)) return;
        if (thrown == null) begun.passed();
        else begun.failed(thrown);
    }

    /** From now on the classes of these packages tell their calls themselves. */
    static void agentNarrates(NarratedPackages packages) {
        byAgent = packages;
    }

    static boolean isNarratedByAgent(Class<?> type) {
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

    private static String filled(String template, int[] secrets, @Nullable Object[] arguments) {
        String name = template;
        for (int i = 0; i < arguments.length; i++) {
            int place = i;
            boolean secret = Arrays.stream(secrets).anyMatch(s -> s == place);
            name = name.replace("{" + i + "}", secret ? MASK : shown(arguments[i]));
        }
        return name;
    }

    private static String shown(@Nullable Object argument) {
        try {
            return String.valueOf(argument);
        } catch (RuntimeException broken) {
            return "(" + broken.getClass().getSimpleName() + ")";
        }
    }
}
