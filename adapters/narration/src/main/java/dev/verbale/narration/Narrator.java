package dev.verbale.narration;

import dev.verbale.Verbale;
import dev.verbale.recorder.Step;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.util.Arrays;
import java.util.Locale;
import net.bytebuddy.implementation.bind.annotation.AllArguments;
import net.bytebuddy.implementation.bind.annotation.FieldValue;
import net.bytebuddy.implementation.bind.annotation.Origin;
import net.bytebuddy.implementation.bind.annotation.RuntimeType;
import org.jspecify.annotations.Nullable;

/** Hands calls on to the original, as steps where they are narrated. Public for the classes that are made, and no others. */
public final class Narrator {

    private static final String MASK = "[masked]";

    private Narrator() {}

    /** Every call on a narrating object comes here. */
    @RuntimeType
    public static @Nullable Object call(
            @Origin(cache = true) Method method,
            @AllArguments @Nullable Object[] arguments,
            @FieldValue("verbale$original") Object original)
            throws Throwable {
        Narrated narrated = method.getAnnotation(Narrated.class);
        if (narrated == null) return invoke(method, original, arguments);
        for (int secret : narrated.secret())
            if (secret < arguments.length && arguments[secret] != null)
                Verbale.secret(String.valueOf(arguments[secret]));
        Step step = Verbale.begin(name(method, narrated, arguments));
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

    private static @Nullable Object invoke(Method method, Object original, @Nullable Object[] arguments)
            throws Throwable {
        try {
            method.setAccessible(true);
            return method.invoke(original, arguments);
        } catch (InvocationTargetException thrown) {
            throw thrown.getCause() == null ? thrown : thrown.getCause(); // the original's own exception
        }
    }

    private static String name(Method method, Narrated narrated, @Nullable Object[] arguments) {
        String name = narrated.value();
        if (name.isEmpty())
            return method.getName()
                    .replaceAll("(?<=[a-z0-9])(?=[A-Z])", " ")
                    .replace('_', ' ')
                    .toLowerCase(Locale.ROOT);
        for (int i = 0; i < arguments.length; i++) {
            int place = i;
            boolean secret = Arrays.stream(narrated.secret()).anyMatch(s -> s == place);
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
