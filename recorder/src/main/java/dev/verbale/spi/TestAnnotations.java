package dev.verbale.spi;

import dev.verbale.About;
import dev.verbale.ExpectedFailure;
import dev.verbale.Recorder;
import java.lang.reflect.Method;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What annotations say of a test, whatever framework runs it.
 *
 * @param about what it is about, where its package, its classes or its method say so
 * @param expectedFailure that it is expected to fail, where it is
 * @since 0.2.0
 */
public record TestAnnotations(Optional<dev.verbale.vocabulary.About> about, Optional<ExpectedFailure> expectedFailure) {

    public TestAnnotations {
        about = about == null ? Optional.empty() : about;
        expectedFailure = expectedFailure == null ? Optional.empty() : expectedFailure;
    }

    /** They say nothing. */
    public static final TestAnnotations NONE = new TestAnnotations(Optional.empty(), Optional.empty());

    /** Of {@code method}, its classes and its package. Where one of them cannot be loaded, they say nothing. */
    public static TestAnnotations of(Method method) {
        try {
            return read(method);
        } catch (RuntimeException | LinkageError unloadable) {
            return NONE;
        }
    }

    /** Records what the test that runs on this thread is about, where they say so. */
    public void recordAbout(Recorder recorder) {
        if (recorder != null && about.isPresent()) recorder.about(about.get());
    }

    /** How a test ends that did what it should: where a failure was expected, that is stated. */
    public TestEnd passed() {
        if (expectedFailure.isEmpty()) return TestEnd.passed();
        return TestEnd.passedUnexpectedly(
                "It was expected to fail (" + expectedFailure.get().value() + ") and passed: the annotation can go");
    }

    /** What a class, those around it and its package say: asked once, not for each of its methods. */
    private static final ClassValue<List<About>> OF_CLASS = new ClassValue<>() {
        @Override
        protected List<About> computeValue(Class<?> type) {
            List<About> found = new ArrayList<>();
            for (Class<?> outer = type; outer != null; outer = outer.getEnclosingClass())
                add(found, outer.getAnnotation(About.class));
            add(found, type.getPackage() == null ? null : type.getPackage().getAnnotation(About.class));
            return List.copyOf(found);
        }
    };

    private static TestAnnotations read(Method method) {
        About own = method.getAnnotation(About.class);
        List<About> found = OF_CLASS.get(method.getDeclaringClass());
        ExpectedFailure expected = method.getAnnotation(ExpectedFailure.class);
        if (own != null) {
            found = new ArrayList<>(found);
            found.add(0, own);
        }
        boolean silent = found.isEmpty() && (expected == null || expected.link().isEmpty());
        if (silent && expected == null) return NONE;
        return new TestAnnotations(
                silent ? Optional.empty() : Optional.of(merged(found, expected)), Optional.ofNullable(expected));
    }

    private static void add(List<About> found, @Nullable About about) {
        if (about != null) found.add(about);
    }

    /** The nearest first: of what is said twice, that counts. */
    private static dev.verbale.vocabulary.About merged(List<About> nearestFirst, @Nullable ExpectedFailure expected) {
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
        var about =
                dev.verbale.vocabulary.About.of().text(text).severity(severity).owner(owner);
        links.forEach(about::link);
        return about.build();
    }
}
