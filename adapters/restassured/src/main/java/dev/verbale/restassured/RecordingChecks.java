package dev.verbale.restassured;

import dev.verbale.Exchange;
import io.restassured.response.Response;
import io.restassured.response.ValidatableResponse;
import java.lang.reflect.InvocationHandler;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Proxy;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Makes the assertions on a response tell themselves as checks of its exchange. They throw what they threw: REST Assured's
 * own contract is that the first that fails ends the test.
 */
final class RecordingChecks {

    /** What a {@code then()} has and is no assertion. */
    private static final Set<String> OTHERS = Set.of(
            "and",
            "assertThat",
            "using",
            "extract",
            "log",
            "rootPath",
            "root",
            "appendRootPath",
            "appendRoot",
            "detachRootPath",
            "detachRoot",
            "noRootPath",
            "noRoot",
            "parser",
            "defaultParser");

    /** By which one of ours is known. */
    private interface Recording extends InvocationHandler {}

    private RecordingChecks() {}

    /** {@code response}, whose {@code then()} records what it checks. */
    static Response of(Response response, Exchange exchange) {
        return proxy(Response.class, (Recording) (proxy, method, arguments) -> {
            Object result = called(response, method, arguments);
            return result instanceof ValidatableResponse checks
                            && method.getName().equals("then")
                    ? proxy(ValidatableResponse.class, checking(checks, exchange))
                    : result;
        });
    }

    static boolean isIn(Response response) {
        return Proxy.isProxyClass(response.getClass()) && Proxy.getInvocationHandler(response) instanceof Recording;
    }

    private static InvocationHandler checking(ValidatableResponse checks, Exchange exchange) {
        return (proxy, method, arguments) -> {
            if (method.getDeclaringClass() == Object.class || OTHERS.contains(method.getName())) {
                Object result = called(checks, method, arguments);
                return result == checks ? proxy : result;
            }
            Object result;
            try {
                result = called(checks, method, arguments);
            } catch (AssertionError failure) {
                exchange.checkFailed(CheckNames.of(method.getName(), arguments), failure);
                throw failure;
            }
            if (!(result instanceof ValidatableResponse)) return result;
            exchange.checked(CheckNames.of(method.getName(), arguments), null);
            return proxy;
        };
    }

    private static Object called(Object target, Method method, Object @Nullable [] arguments) throws Throwable {
        try {
            return method.invoke(target, arguments);
        } catch (InvocationTargetException thrown) {
            throw thrown.getTargetException(); // the test sees its own exception
        }
    }

    private static <T> T proxy(Class<T> type, InvocationHandler handler) {
        return type.cast(
                Proxy.newProxyInstance(RecordingChecks.class.getClassLoader(), new Class<?>[] {type}, handler));
    }
}
