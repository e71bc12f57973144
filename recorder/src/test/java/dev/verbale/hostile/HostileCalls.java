package dev.verbale.hostile;

import java.io.IOException;
import java.lang.reflect.Constructor;
import java.lang.reflect.Executable;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Stream;

/** Calls with nulls and with the worst, and which of them threw. */
final class HostileCalls {

    private final List<Function<Class<?>, Object>> kinds;
    private final List<String> threw = new ArrayList<>();
    private int count;

    @FunctionalInterface
    private interface Call {
        Object with(Object[] arguments) throws ReflectiveOperationException;
    }

    /** @param worst gives the worst of a type */
    HostileCalls(Function<Class<?>, Object> worst) {
        kinds = List.of(HostileCalls::nothing, worst);
    }

    /** Each without a word is fine. */
    List<String> threw() {
        return threw;
    }

    int count() {
        return count;
    }

    /** What comes of {@code constructor}. */
    List<Object> of(Constructor<?> constructor) throws ReflectiveOperationException {
        return of(constructor, constructor::newInstance);
    }

    /** What comes of {@code method}, but for nulls. */
    List<Object> of(Method method, Object instance) throws ReflectiveOperationException {
        return of(method, arguments -> method.invoke(instance, arguments));
    }

    private List<Object> of(Executable what, Call call) throws ReflectiveOperationException {
        List<Object> results = new ArrayList<>();
        for (Function<Class<?>, Object> kind : kinds) {
            Object[] arguments = Stream.of(what.getParameterTypes()).map(kind).toArray();
            count++;
            try {
                results.add(call.with(arguments));
            } catch (InvocationTargetException thrown) {
                if (List.of(what.getExceptionTypes()).contains(IOException.class)
                        && thrown.getCause() instanceof IOException) continue; // it says that it may
                threw.add(what + " with " + (kind == kinds.get(0) ? "nulls" : "the worst") + ": "
                        + thrown.getCause().getClass() + where(thrown.getCause()));
            }
        }
        results.removeIf(Objects::isNull);
        return results;
    }

    private static String where(Throwable thrown) {
        try {
            return " at " + List.of(thrown.getStackTrace()).subList(0, Math.min(4, thrown.getStackTrace().length));
        } catch (Throwable hostile) {
            return "";
        }
    }

    static Object nothing(Class<?> type) {
        if (type == int.class) return 0;
        if (type == long.class) return 0L;
        if (type == double.class) return 0.0;
        return type == boolean.class ? false : null;
    }
}
