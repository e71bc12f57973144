package dev.verbale.results.reason;

import dev.verbale.event.Failure;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** The throwables of a stack trace as the JVM prints it, the outermost first. */
record ThrownChain(List<Thrown> thrown) {

    /** Longer traces end where nobody looks any more; a recursion has thousands of frames. */
    private static final int MAX_FRAMES = 400;

    private static final Pattern CAUSE = Pattern.compile("Caused by: ([\\w.$]+)(?:: (.*))?");

    private static final Pattern FRAME =
            Pattern.compile("\\s*at (?:[\\w.@-]*/)*+([\\w.$<>/-]+)\\(([^()]*)\\)(?: ~?\\[.*)?\\s*");

    /** Types that carry another failure from one thread or layer to the next, and add nothing to it. */
    private static final Set<String> CARRIERS = Set.of(
            "java.util.concurrent.CompletionException",
            "java.util.concurrent.ExecutionException",
            "java.lang.reflect.InvocationTargetException",
            "java.lang.reflect.UndeclaredThrowableException",
            "java.io.UncheckedIOException",
            "java.lang.ExceptionInInitializerError",
            "java.security.PrivilegedActionException");

    /**
     * A throwable of the chain.
     *
     * @param frames its own, the nearest first, such as {@code dev.orto.RotaTest.swaps}
     */
    record Thrown(String type, @Nullable String message, List<Frame> frames) {

        /** By one of the names that assertions have; the same check may throw now one and now another. */
        boolean isAssertion() {
            return type.endsWith("AssertionError")
                    || type.endsWith("AssertionFailedError")
                    || type.endsWith("ComparisonFailure");
        }
    }

    /** Where it was. */
    record Frame(String className, String method) {

        /** The class's name without what the compiler put behind it. */
        String outerClass() {
            int nested = className.indexOf('$');
            return nested < 0 ? className : className.substring(0, nested);
        }

        /** The method as it was written, also where the frame is of a lambda in it. */
        String writtenMethod() {
            if (!method.startsWith("lambda$")) return method;
            int end = method.lastIndexOf('$');
            return end > 7 ? method.substring(7, end) : method;
        }

        String text() {
            return className + "." + writtenMethod();
        }
    }

    static ThrownChain of(Failure failure) {
        List<Thrown> thrown = new ArrayList<>();
        String type = failure.type();
        String message = failure.message();
        List<Frame> frames = new ArrayList<>();
        boolean own = true; // not of a suppressed one
        for (String line : (Iterable<String>) failure.stack().lines().limit(20_000)::iterator) {
            Matcher frame = FRAME.matcher(line);
            if (frame.matches()) {
                if (own && frames.size() < MAX_FRAMES) add(frames, frame.group(1));
                continue;
            }
            Matcher cause = CAUSE.matcher(line);
            if (cause.matches()) {
                thrown.add(new Thrown(type, message, List.copyOf(frames)));
                type = cause.group(1);
                message = cause.group(2);
                frames.clear();
                own = true;
            } else if (line.contains("Suppressed: ") || line.stripLeading().startsWith("Caused by: ")) {
                own = false; // indented: what happened beside it
            }
        }
        thrown.add(new Thrown(type, message, List.copyOf(frames)));
        return new ThrownChain(thrown);
    }

    private static void add(List<Frame> frames, String qualified) {
        int dot = qualified.lastIndexOf('.');
        if (dot > 0) frames.add(new Frame(qualified.substring(0, dot), qualified.substring(dot + 1)));
    }

    /** The one that says what happened: the first that does not only carry another. */
    Thrown decisive() {
        for (int i = 0; i < thrown.size() - 1; i++) {
            Thrown one = thrown.get(i);
            Thrown next = thrown.get(i + 1);
            boolean repeats = one.message() != null
                    && one.message().startsWith(next.type())
                    && (next.message() == null || one.message().contains(next.message()));
            if (!repeats && !CARRIERS.contains(one.type())) return one;
        }
        return last();
    }

    /** Whether an assertion was waited for in vain, or carried from another thread. */
    boolean holdsAssertion() {
        return thrown.stream().anyMatch(Thrown::isAssertion);
    }

    /** The innermost, where it began. */
    Thrown last() {
        return thrown.get(thrown.size() - 1);
    }

    /** All frames, those of the causes last. */
    List<Frame> frames() {
        return thrown.stream().flatMap(one -> one.frames().stream()).toList();
    }
}
