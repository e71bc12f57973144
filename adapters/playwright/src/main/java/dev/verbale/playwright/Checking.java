package dev.verbale.playwright;

import dev.verbale.spi.AdapterRecorder;
import java.lang.reflect.InvocationHandler;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Proxy;
import java.util.Arrays;
import java.util.Locale;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** Assertions that are written down as checks. They throw as they did: Playwright's wait, and so are no soft ones. */
final class Checking<T> implements InvocationHandler {

    private final Class<T> type;
    private final T real;
    private final String subject;

    private Checking(Class<T> type, T real, String subject) {
        this.type = type;
        this.real = real;
        this.subject = subject;
    }

    static <T> T of(Class<T> type, T real, String subject) {
        return type.cast(Proxy.newProxyInstance(
                type.getClassLoader(), new Class<?>[] {type}, new Checking<>(type, real, subject)));
    }

    @Override
    public @Nullable Object invoke(Object proxy, Method method, Object @Nullable [] arguments) throws Throwable {
        try {
            Object result = method.invoke(real, arguments);
            if (type.isInstance(result)) return of(type, type.cast(result), subject + " not");
            if (method.getDeclaringClass() != Object.class)
                AdapterRecorder.current().checked(name(method, arguments), null);
            return result;
        } catch (InvocationTargetException thrown) {
            Throwable failure = thrown.getCause() == null ? thrown : thrown.getCause();
            AdapterRecorder.current().checkFailed(name(method, arguments), failure);
            throw failure;
        }
    }

    private String name(Method method, Object @Nullable [] arguments) {
        String words = method.getName().replaceAll("(?<=[a-z])(?=[A-Z])", " ").toLowerCase(Locale.ROOT);
        String values = arguments == null
                ? ""
                : Arrays.stream(arguments)
                        .filter(value -> value instanceof String || value instanceof Number || value instanceof Boolean)
                        .map(value -> " '" + value + "'")
                        .collect(Collectors.joining());
        return subject + " " + words + values;
    }
}
