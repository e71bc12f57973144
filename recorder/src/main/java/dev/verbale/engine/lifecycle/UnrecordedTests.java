package dev.verbale.engine.lifecycle;

import dev.verbale.engine.journal.RunJournal;
import dev.verbale.event.FactStated;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Notices that somebody records in tests that no adapter reports: their framework's adapter is missing, and a run that says that no
 * test ran would be no help. Told by the stack of the first calls outside of tests, while there is no test.
 */
public final class UnrecordedTests implements Runnable {

    private static final int MAX_CHECKS = 20;

    /** Packages that run tests, by the framework's name. */
    private static final Map<String, String> RUNNERS = Map.of(
            "org.testng.internal.", "TestNG",
            "org.junit.runners.", "JUnit 4",
            "io.cucumber.core.runner.", "Cucumber",
            "org.junit.jupiter.engine.", "JUnit Jupiter");

    private final Set<String> adapters;
    private final RunJournal journal;
    private final Totals totals;
    private final AtomicInteger checks = new AtomicInteger();
    private volatile @Nullable String framework;

    /** @param adapters those of frameworks that are at work: their tests are yet to begin */
    public UnrecordedTests(RunJournal journal, Totals totals, Set<String> adapters) {
        this.adapters = adapters;
        this.journal = journal;
        this.totals = totals;
    }

    /** Something is recorded that belongs to no test. Where there is none so far, it may come from one that no adapter reported. */
    @Override
    public void run() {
        if (!adapters.isEmpty() || totals.all() > 0 || framework != null || checks.incrementAndGet() > MAX_CHECKS)
            return;
        Optional<String> found = StackWalker.getInstance().walk(UnrecordedTests::runner);
        if (found.isEmpty()) return;
        framework = found.get();
        journal.append(new FactStated(
                journal.now(),
                FactStated.NOT_RECORDED,
                "tests of " + found.get() + ": its adapter is not on the class path, or not registered"));
    }

    private static Optional<String> runner(Stream<StackWalker.StackFrame> frames) {
        return frames.flatMap(frame -> RUNNERS.entrySet().stream()
                        .filter(runner -> frame.getClassName().startsWith(runner.getKey()))
                        .map(Map.Entry::getValue))
                .findFirst();
    }

    /** At the end of the JVM: what was noticed is taken back where tests were recorded since. */
    public void end() {
        if (framework != null && totals.all() > 0)
            journal.append(new FactStated(journal.now(), FactStated.NOT_RECORDED, ""));
    }

    /** Whose tests were noticed; null for none, or where tests were recorded since. */
    public @Nullable String framework() {
        return totals.all() > 0 ? null : framework;
    }
}
