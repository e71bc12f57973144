package dev.verbale.junit;

import dev.verbale.About;
import dev.verbale.ExpectedFailure;
import dev.verbale.recorder.Description;
import java.lang.reflect.Method;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.junit.platform.engine.support.descriptor.MethodSource;
import org.junit.platform.launcher.TestIdentifier;
import org.junit.platform.launcher.TestPlan;

/** What annotations say about a test. */
final class Announcements {

    private Announcements() {}

    /** The description of the test, where its package, its classes or its method give one. */
    static Optional<Description> description(TestIdentifier id, TestPlan plan) {
        Optional<Method> method = method(id, plan);
        if (method.isEmpty()) return Optional.empty();
        List<About> said = new ArrayList<>();
        Class<?> type = method.get().getDeclaringClass();
        for (Class<?> outer = type; outer != null; outer = outer.getEnclosingClass())
            add(said, outer.getAnnotation(About.class));
        add(said, type.getPackage() == null ? null : type.getPackage().getAnnotation(About.class));
        said.add(0, method.get().getAnnotation(About.class)); // may be null, and the nearest in any case
        Description merged = merged(said, method.get().getAnnotation(ExpectedFailure.class));
        return merged.equals(merged(List.of(), null)) ? Optional.empty() : Optional.of(merged);
    }

    /** The announcement that the test fails, where there is one. */
    static Optional<ExpectedFailure> expectedFailure(TestIdentifier id, TestPlan plan) {
        return method(id, plan).map(method -> method.getAnnotation(ExpectedFailure.class));
    }

    private static void add(List<About> said, @Nullable About about) {
        if (about != null) said.add(about);
    }

    /** The nearest first: of what is said twice, that counts. */
    private static Description merged(List<@Nullable About> nearestFirst, @Nullable ExpectedFailure expected) {
        String text = null;
        String severity = null;
        String owner = null;
        List<String> links = new ArrayList<>();
        for (About about : nearestFirst) {
            if (about == null) continue;
            if (text == null && !about.value().isEmpty()) text = about.value();
            if (severity == null && !about.severity().isEmpty()) severity = about.severity();
            if (owner == null && !about.owner().isEmpty()) owner = about.owner();
            links.addAll(List.of(about.links()));
        }
        if (expected != null && !expected.link().isEmpty()) links.add(expected.link());
        return new Description(text, severity, owner, links);
    }

    /** Invocations of a template and dynamic tests have their method above them. */
    private static Optional<Method> method(TestIdentifier id, TestPlan plan) {
        for (Optional<TestIdentifier> one = Optional.of(id); one.isPresent(); one = plan.getParent(one.get())) {
            if (!(one.get().getSource().orElse(null) instanceof MethodSource source)) continue;
            try {
                return Optional.of(source.getJavaMethod());
            } catch (RuntimeException | LinkageError unloadable) {
                return Optional.empty();
            }
        }
        return Optional.empty();
    }
}
