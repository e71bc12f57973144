package dev.verbale.junit;

import dev.verbale.About;
import dev.verbale.ExpectedFailure;
import dev.verbale.recorder.Description;
import java.lang.reflect.Method;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.junit.platform.engine.support.descriptor.MethodSource;
import org.junit.platform.launcher.TestIdentifier;
import org.junit.platform.launcher.TestPlan;

/** What annotations say about a test. */
final class Announcements {

    private Announcements() {}

    /** What annotations say of one method: asked at the start and the end of each of its invocations. */
    private record Said(Optional<Description> description, Optional<ExpectedFailure> expected) {
        static final Said NOTHING = new Said(Optional.empty(), Optional.empty());
    }

    private static final Map<Method, Said> SAID = new ConcurrentHashMap<>();

    /** The description of the test, where its package, its classes or its method give one. */
    static Optional<Description> description(TestIdentifier id, TestPlan plan) {
        return said(id, plan).description();
    }

    /** The announcement that the test fails, where there is one. */
    static Optional<ExpectedFailure> expectedFailure(TestIdentifier id, TestPlan plan) {
        return said(id, plan).expected();
    }

    private static Said said(TestIdentifier id, TestPlan plan) {
        Method method = method(id, plan);
        return method == null ? Said.NOTHING : SAID.computeIfAbsent(method, Announcements::read);
    }

    private static Said read(Method method) {
        List<About> said = new ArrayList<>();
        Class<?> type = method.getDeclaringClass();
        add(said, method.getAnnotation(About.class));
        for (Class<?> outer = type; outer != null; outer = outer.getEnclosingClass())
            add(said, outer.getAnnotation(About.class));
        add(said, type.getPackage() == null ? null : type.getPackage().getAnnotation(About.class));
        ExpectedFailure expected = method.getAnnotation(ExpectedFailure.class);
        boolean silent = said.isEmpty() && (expected == null || expected.link().isEmpty());
        return new Said(silent ? Optional.empty() : Optional.of(merged(said, expected)), Optional.ofNullable(expected));
    }

    private static void add(List<About> said, @Nullable About about) {
        if (about != null) said.add(about);
    }

    /** The nearest first: of what is said twice, that counts. */
    private static Description merged(List<About> nearestFirst, @Nullable ExpectedFailure expected) {
        String text = null;
        String severity = null;
        String owner = null;
        List<String> links = new ArrayList<>();
        for (About about : nearestFirst) {
            if (text == null && !about.value().isEmpty()) text = about.value();
            if (severity == null && !about.severity().isEmpty()) severity = about.severity();
            if (owner == null && !about.owner().isEmpty()) owner = about.owner();
            links.addAll(List.of(about.links()));
        }
        if (expected != null && !expected.link().isEmpty()) links.add(expected.link());
        return new Description(text, severity, owner, links);
    }

    /** Invocations of a template and dynamic tests have their method above them. */
    private static @Nullable Method method(TestIdentifier id, TestPlan plan) {
        for (Optional<TestIdentifier> one = Optional.of(id); one.isPresent(); one = plan.getParent(one.get())) {
            if (!(one.get().getSource().orElse(null) instanceof MethodSource source)) continue;
            try {
                return source.getJavaMethod();
            } catch (RuntimeException | LinkageError unloadable) {
                return null;
            }
        }
        return null;
    }
}
