package dev.verbale.junit;

import java.lang.annotation.Annotation;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;

/** Knows the classes of JUnit 4 that do nothing but run Cucumber. Found by name: neither may be there. */
final class CucumberRunner {

    private static final String RUN_WITH = "org.junit.runner.RunWith";
    private static final String CUCUMBER = "io.cucumber.junit.Cucumber";
    private static final Map<String, Boolean> KNOWN = new ConcurrentHashMap<>();

    private CucumberRunner() {}

    /** Whether the class of that name is one. */
    static boolean runs(String className) {
        return KNOWN.computeIfAbsent(className, CucumberRunner::isRunWithCucumber);
    }

    private static boolean isRunWithCucumber(String className) {
        try {
            Class<?> type =
                    Class.forName(className, false, Thread.currentThread().getContextClassLoader());
            for (Annotation annotation : type.getAnnotations())
                if (annotation.annotationType().getName().equals(RUN_WITH)) return isCucumber(annotation);
        } catch (ReflectiveOperationException | LinkageError unloadable) {
            return false;
        }
        return false;
    }

    private static boolean isCucumber(Annotation runWith) throws ReflectiveOperationException {
        @Nullable Object runner = runWith.annotationType().getMethod("value").invoke(runWith);
        return runner instanceof Class<?> type && type.getName().equals(CUCUMBER);
    }
}
