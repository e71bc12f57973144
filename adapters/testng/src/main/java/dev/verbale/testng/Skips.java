package dev.verbale.testng;

import dev.verbale.spi.SharedContainer;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.Outcome;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.testng.ITestNGMethod;
import org.testng.ITestResult;

/** Why TestNG did not run a test: a fixture broke, or what the test depends on did not do what it should. */
final class Skips {

    private final RunningContext context;
    private final Set<String> because = new LinkedHashSet<>();
    private final List<String> names = new ArrayList<>();

    private Skips(RunningContext context) {
        this.context = context;
    }

    static TestEnd of(RunningContext context, ITestResult result) {
        return new Skips(context).end(result);
    }

    private TestEnd end(ITestResult result) {
        SharedContainer broken = context.broken(result.getTestClass());
        for (ITestNGMethod cause : causes(result))
            if (cause.isTest()) dependsOn(cause.getMethodName(), context.failed(cause));
        if (because.isEmpty()) dependencies(result.getMethod());
        if (!because.isEmpty())
            return TestEnd.blocked("It depends on " + String.join(", ", names), List.copyOf(because));
        if (broken != null)
            return TestEnd.blocked(
                    "The fixture '" + broken.brokenBy() + "' of " + broken.name() + " failed", List.of(broken.key()));
        Throwable thrown = result.getThrowable();
        return TestEnd.of(Outcome.SKIPPED)
                .reason("TestNG skipped it before it began: " + message(thrown))
                .failure(thrown)
                .build();
    }

    private static String message(@Nullable Throwable thrown) {
        String message = thrown == null ? null : thrown.getMessage();
        return message == null
                ? thrown == null ? "it does not say why" : thrown.getClass().getName()
                : message.strip();
    }

    private void dependsOn(String name, @Nullable String key) {
        if (key != null && because.add(key)) names.add(name + ", which did not pass");
    }

    /** TestNG names no cause where that was skipped itself. */
    private void dependencies(ITestNGMethod method) {
        for (String name : method.getMethodsDependedUpon())
            dependsOn(name.substring(name.lastIndexOf('.') + 1), context.failed(name));
        for (String group : method.getGroupsDependedUpon())
            for (ITestNGMethod one : context.context.getAllTestMethods())
                if (List.of(one.getGroups()).stream().anyMatch(name -> name.matches(group)))
                    dependsOn(one.getMethodName(), context.failed(one));
    }

    private static List<ITestNGMethod> causes(ITestResult result) {
        try {
            List<ITestNGMethod> causes = result.getSkipCausedBy();
            return causes == null ? List.of() : causes;
        } catch (LinkageError | RuntimeException older) {
            return List.of();
        }
    }
}
