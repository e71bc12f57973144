package dev.verbale.internal;

import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Notices that somebody records in tests that nobody told of: their framework's adapter is missing, and a run that says that no
 * test ran would be no help. Told by the stack of the first calls outside of tests, while there is no test.
 */
final class UnheardTests {

    private static final int MOST_LOOKS = 20;

    /** Packages that run tests, by the framework's name. */
    private static final Map<String, String> RUNNERS = Map.of(
            "org.testng.internal.", "TestNG",
            "org.junit.runners.", "JUnit 4",
            "io.cucumber.core.runner.", "Cucumber",
            "org.junit.jupiter.engine.", "JUnit Jupiter");

    private final AtomicInteger looks = new AtomicInteger();
    private volatile @Nullable String framework;

    /** The framework, where it is known now and was not before. */
    Optional<String> look() {
        if (framework != null || looks.incrementAndGet() > MOST_LOOKS) return Optional.empty();
        Optional<String> found = StackWalker.getInstance().walk(UnheardTests::runner);
        found.ifPresent(name -> framework = name);
        return found;
    }

    private static Optional<String> runner(Stream<StackWalker.StackFrame> frames) {
        return frames.flatMap(frame -> RUNNERS.entrySet().stream()
                        .filter(runner -> frame.getClassName().startsWith(runner.getKey()))
                        .map(Map.Entry::getValue))
                .findFirst();
    }

    /** Whose tests were noticed; null for none. */
    @Nullable
    String framework() {
        return framework;
    }
}
