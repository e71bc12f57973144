package dev.verbale.hostile;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.lang.reflect.Constructor;
import java.lang.reflect.Method;
import java.lang.reflect.Modifier;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** No call of a public type of an adapter throws into a test, whatever it is given. In each adapter's own tests. */
public abstract class AdapterCallsContract {

    /** Those that promise an exception, by {@code Type.method}: each names it in its Javadoc. */
    protected Set<String> saysSo() {
        return Set.of();
    }

    @Test
    void no_call_throws_whatever_it_is_given() throws Exception {
        AdapterRecorder recorder = AdapterRecorder.current();
        String name = getClass().getName();
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of(name, name).className(name).build());
        var calls = new HostileCalls(type -> worst(recorder, type));
        List<Class<?>> types = publicTypes();
        for (Class<?> type : types) {
            List<Object> instances = new ArrayList<>();
            if (!Modifier.isAbstract(type.getModifiers()))
                for (Constructor<?> constructor : type.getConstructors()) instances.addAll(calls.of(constructor));
            for (Method method : type.getDeclaredMethods())
                if (isOffered(method) && Modifier.isStatic(method.getModifiers()))
                    for (Object made : calls.of(method, null)) if (type.isInstance(made)) instances.add(made);
            for (Method method : type.getDeclaredMethods())
                if (isOffered(method) && !Modifier.isStatic(method.getModifiers()))
                    for (Object instance : instances) calls.of(method, instance);
        }
        recorder.endTest(test, TestEnd.threw(new Hostile.Thrown()));

        assertThat(calls.threw()).isEmpty();
        assertThat(calls.count()).isPositive();
    }

    /** What only the recorder makes is its own. */
    private static Object worst(AdapterRecorder recorder, Class<?> type) {
        if (type == Scope.class) return recorder.run();
        return type.isInstance(recorder) && type != Object.class ? recorder : Hostile.value(type);
    }

    private boolean isOffered(Method method) {
        return Modifier.isPublic(method.getModifiers())
                && !method.isSynthetic()
                && !saysSo().contains(method.getDeclaringClass().getSimpleName() + "." + method.getName());
    }

    /** Of the classes beside those of the tests. */
    private List<Class<?>> publicTypes() throws Exception {
        Path tests = Path.of(
                getClass().getProtectionDomain().getCodeSource().getLocation().toURI());
        Path classes = tests.resolveSibling("classes");
        List<Class<?>> types = new ArrayList<>();
        try (Stream<Path> files = Files.walk(classes)) {
            for (Path file : files.sorted().toList()) {
                String name = classes.relativize(file).toString();
                if (!name.endsWith(".class") || name.endsWith("-info.class") || name.startsWith("META-INF")) continue;
                Class<?> type = Class.forName(name.replace(".class", "").replace('/', '.'));
                if (isPublic(type)) types.add(type);
            }
        }
        return types;
    }

    private static boolean isPublic(Class<?> type) {
        for (Class<?> one = type; one != null; one = one.getEnclosingClass())
            if (!Modifier.isPublic(one.getModifiers())) return false;
        return true;
    }
}
