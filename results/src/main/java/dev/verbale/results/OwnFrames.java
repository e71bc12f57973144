package dev.verbale.results;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Tells the suite's own frames from those of libraries, in stack traces as the JVM prints them. What the adapters said when
 * the run was recorded counts, besides the JDK, the languages of the JVM and Verbale itself.
 *
 * @since 0.2.0
 */
public final class OwnFrames {

    private static final List<String> ALWAYS = List.of(
            "java.",
            "javax.",
            "jdk.",
            "sun.",
            "com.sun.",
            "kotlin.",
            "kotlinx.",
            "groovy.",
            "org.codehaus.groovy.",
            "org.apache.groovy.",
            "scala.",
            "dev.verbale.",
            // What waits and tries again around the suite's code, whoever uses it:
            "org.awaitility.",
            "dev.failsafe.",
            "net.jodah.failsafe.",
            "io.github.resilience4j.",
            "com.github.rholder.retry.",
            "org.springframework.retry.",
            "org.hamcrest.",
            "org.assertj.");

    /** A frame, with its module or class loader before a slash; of a source file, whatever language that is in. */
    private static final Pattern FRAME =
            Pattern.compile("\\s*at (?:[\\w.@-]*/)*+([\\w.$<>-]+\\([^()]*\\.\\w+:\\d+\\))\\s*");

    private static final Pattern LINE = Pattern.compile("\\s*at (?:[\\w.@-]*/)*+(.*)");

    private final List<String> libraries;

    /** @param libraries how the names of classes begin that are not the suite's own */
    OwnFrames(List<String> libraries) {
        List<String> all = new ArrayList<>(ALWAYS);
        all.addAll(libraries);
        this.libraries = List.copyOf(all);
    }

    /** The nearest own frame in {@code stack}, such as {@code dev.orto.RotaTest.swaps(RotaTest.java:31)}; empty for none. */
    public String nearest(String stack) {
        return stack.lines()
                .map(FRAME::matcher)
                .filter(Matcher::matches)
                .map(frame -> frame.group(1))
                .filter(this::isOwn)
                .findFirst()
                .orElse("");
    }

    /** Whether {@code line} of a stack trace is a frame of the suite's own, with or without a source file. */
    public boolean isOwnLine(String line) {
        Matcher frame = LINE.matcher(line);
        return frame.lookingAt() && isOwn(frame.group(1));
    }

    /** Whether a frame that begins so, such as {@code dev.orto.RotaTest.}, is of the suite. */
    public boolean isOwn(String frame) {
        for (String library : libraries) if (frame.startsWith(library)) return false;
        return true;
    }
}
