package dev.verbale.playwright;

import com.microsoft.playwright.FrameLocator;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.PlaywrightException;
import dev.verbale.browser.BrowserAdapter;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.AdapterStep;
import dev.verbale.vocabulary.StepKind;
import java.lang.reflect.Field;
import java.lang.reflect.InvocationHandler;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Proxy;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Stands before a page or a locator, and records what is done with it. */
final class RecordingProxy implements InvocationHandler {

    private static final int SHORTEST_SECRET = 6;
    private static final String FIELD =
            "all => all.length ? all.map(e => [e.type, e.name, e.id, e.autocomplete].join(' ')).join(' ') : 'password'";

    private final Object real;
    private final String name;
    private final PageSession session;
    private final AdapterRecorder recorder = AdapterRecorder.current();
    private final boolean off;

    private RecordingProxy(Object real, String name, PageSession session) {
        this.real = real;
        this.name = name;
        this.session = session;
        off = recorder.setting(BrowserAdapter.STEPS).equals("off");
    }

    static Page page(Page page, PageSession session) {
        return wrapped(Page.class, page, "the page", session);
    }

    private static <T> T wrapped(Class<T> type, T real, String name, PageSession session) {
        var handler = new RecordingProxy(real, name, session);
        return type.cast(Proxy.newProxyInstance(type.getClassLoader(), new Class<?>[] {type}, handler));
    }

    /** What stands behind {@code thing}, or {@code thing}. */
    @SuppressWarnings("unchecked") // what stands behind implements what stands before
    static <T> T real(T thing) {
        if (thing == null || !Proxy.isProxyClass(thing.getClass())) return thing;
        return Proxy.getInvocationHandler(thing) instanceof RecordingProxy recordingProxy
                ? (T) recordingProxy.real
                : thing;
    }

    static String name(Object thing) {
        boolean ours = thing != null
                && Proxy.isProxyClass(thing.getClass())
                && Proxy.getInvocationHandler(thing) instanceof RecordingProxy;
        return ours ? ((RecordingProxy) Proxy.getInvocationHandler(thing)).name : String.valueOf(thing);
    }

    @Override
    public @Nullable Object invoke(Object proxy, Method method, Object @Nullable [] given) throws Throwable {
        Object[] arguments = given == null ? new Object[0] : given.clone();
        for (int i = 0; i < arguments.length; i++) arguments[i] = unwrapped(arguments[i]);
        if (method.getDeclaringClass() == Object.class) return call(method, arguments);
        session.used();
        if (real instanceof Page && method.getName().equals("close")) session.closes();
        String words = off ? null : wordsOrNull(method.getName(), arguments);
        if (words == null || recorder.currentTest().id() == recorder.run().id())
            return wrap(call(method, arguments), method, arguments);
        AdapterStep step = recorder.startStep(StepKind.BROWSER, words);
        Object result;
        try {
            result = call(method, arguments);
        } catch (Throwable failure) {
            step.failedWithoutEvidence(failure);
            throw failure;
        }
        step.passed();
        return wrap(result, method, arguments);
    }

    private @Nullable Object call(Method method, Object[] arguments) throws Throwable {
        try {
            return method.invoke(real, arguments);
        } catch (InvocationTargetException thrown) {
            throw thrown.getCause() == null ? thrown : thrown.getCause();
        }
    }

    /** What Playwright itself will refuse, such as a selector that is null, is no step. */
    private @Nullable String wordsOrNull(String method, Object[] arguments) {
        try {
            return words(method, arguments);
        } catch (RuntimeException odd) {
            return null;
        }
    }

    private @Nullable String words(String method, Object[] arguments) {
        if (real instanceof Page) {
            if (Words.isTyping(method) && arguments.length > 1)
                register(arguments[1]); // by a selector alone nobody knows
            return Words.onPage(method, arguments);
        }
        if (!(real instanceof Locator locator)) return null;
        boolean secret = Words.isTyping(method) && isSecret(locator);
        if (secret && arguments.length > 0) register(arguments[0]);
        return Words.onElement(method, arguments, name, secret);
    }

    private void register(Object typed) {
        if (typed instanceof String text && text.length() >= SHORTEST_SECRET) recorder.secret(text);
    }

    /** A field that is not there yet may be a password's: what is typed matters more than what is recorded. */
    private boolean isSecret(Locator locator) {
        if (recorder.isSecretName(name)) return true;
        try {
            String field = String.valueOf(locator.evaluateAll(FIELD));
            for (String word : field.split("\\s+")) if (recorder.isSecretName(word)) return true;
            return false;
        } catch (PlaywrightException unknown) {
            return true;
        }
    }

    private @Nullable Object wrap(@Nullable Object result, Method method, Object[] arguments) {
        if (result instanceof Locator locator) {
            return wrapped(Locator.class, locator, known(locator, method, arguments), session);
        }
        if (result instanceof FrameLocator frame) return wrapped(FrameLocator.class, frame, name, session);
        if (method.getName().equals("all") && result instanceof List<?> all) {
            List<Object> wrapped = new ArrayList<>();
            for (Object one : all)
                wrapped.add(
                        one instanceof Locator locator
                                ? wrapped(Locator.class, locator, name + " (" + wrapped.size() + ")", session)
                                : one);
            return wrapped;
        }
        return result;
    }

    /** A locator that was made of nothing fails when it is used, and not before. */
    private String known(Locator locator, Method method, Object[] arguments) {
        try {
            String described = locator.description();
            if (described != null) return described;
            return Words.name(method.getName(), arguments, name);
        } catch (RuntimeException odd) {
            return name;
        }
    }

    /** Playwright's own code wants its own objects, also inside its options. */
    private static @Nullable Object unwrapped(@Nullable Object argument) {
        if (argument == null) return null;
        if (!argument.getClass().getName().startsWith("com.microsoft.playwright.")) return real(argument);
        for (Field field : argument.getClass().getFields()) {
            if (field.getType() != Locator.class && field.getType() != List.class) continue;
            try {
                Object value = field.get(argument);
                if (value instanceof Locator locator) field.set(argument, real(locator));
                if (value instanceof List<?> list && list.stream().anyMatch(Locator.class::isInstance))
                    field.set(argument, list.stream().map(RecordingProxy::real).toList());
            } catch (IllegalAccessException closed) {
                // a constant, which holds nothing of ours
            }
        }
        return argument;
    }
}
