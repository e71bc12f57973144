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

/**
 * What annotations say of a test.
 *
 * @param description where its package, its classes or its method give one
 * @param expectedFailure the announcement that it fails, where there is one
 */
record Announcements(Optional<Description> description, Optional<ExpectedFailure> expectedFailure) {

    static final Announcements NONE = new Announcements(Optional.empty(), Optional.empty());

    static Announcements of(MethodSource source) {
        try {
            return read(source.getJavaMethod());
        } catch (RuntimeException | LinkageError unloadable) {
            return NONE;
        }
    }

    private static Announcements read(Method method) {
        List<About> said = new ArrayList<>();
        Class<?> type = method.getDeclaringClass();
        add(said, method.getAnnotation(About.class));
        for (Class<?> outer = type; outer != null; outer = outer.getEnclosingClass())
            add(said, outer.getAnnotation(About.class));
        add(said, type.getPackage() == null ? null : type.getPackage().getAnnotation(About.class));
        ExpectedFailure expected = method.getAnnotation(ExpectedFailure.class);
        boolean silent = said.isEmpty() && (expected == null || expected.link().isEmpty());
        return new Announcements(
                silent ? Optional.empty() : Optional.of(merged(said, expected)), Optional.ofNullable(expected));
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
}
