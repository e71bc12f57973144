package dev.verbale.http;

import java.lang.invoke.MethodHandle;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.MethodType;
import java.net.http.HttpClient;
import java.time.Duration;

/** What a client can since Java 21, called on the client underneath: this module is compiled for 17. */
final class LaterMethods {

    private static final MethodHandles.Lookup LOOKUP = MethodHandles.publicLookup();
    private static final MethodHandle CLOSE = find("close", MethodType.methodType(void.class));
    private static final MethodHandle SHUTDOWN = find("shutdown", MethodType.methodType(void.class));
    private static final MethodHandle SHUTDOWN_NOW = find("shutdownNow", MethodType.methodType(void.class));
    private static final MethodHandle IS_TERMINATED = find("isTerminated", MethodType.methodType(boolean.class));
    private static final MethodHandle AWAIT =
            find("awaitTermination", MethodType.methodType(boolean.class, Duration.class));

    private LaterMethods() {}

    static void close(HttpClient client) {
        call(CLOSE, client);
    }

    static void shutdown(HttpClient client) {
        call(SHUTDOWN, client);
    }

    static void shutdownNow(HttpClient client) {
        call(SHUTDOWN_NOW, client);
    }

    static boolean isTerminated(HttpClient client) {
        return (boolean) call(IS_TERMINATED, client);
    }

    static boolean awaitTermination(HttpClient client, Duration limit) throws InterruptedException {
        return (boolean) LaterMethods.<InterruptedException>called(AWAIT, client, limit);
    }

    private static Object call(MethodHandle method, HttpClient client) {
        return LaterMethods.<RuntimeException>called(method, client);
    }

    /** With what the client throws, as it is. */
    @SuppressWarnings("unchecked")
    private static <X extends Throwable> Object called(MethodHandle method, Object... arguments) throws X {
        try {
            return method.invokeWithArguments(arguments);
        } catch (Throwable thrown) {
            throw (X) thrown;
        }
    }

    private static MethodHandle find(String name, MethodType type) {
        try {
            return LOOKUP.findVirtual(HttpClient.class, name, type);
        } catch (ReflectiveOperationException before21) {
            MethodHandle refusal = MethodHandles.throwException(type.returnType(), UnsupportedOperationException.class)
                    .bindTo(new UnsupportedOperationException("HttpClient." + name + " is there since Java 21"));
            return MethodHandles.dropArguments(
                    MethodHandles.dropArguments(refusal, 0, type.parameterList()), 0, HttpClient.class);
        }
    }
}
