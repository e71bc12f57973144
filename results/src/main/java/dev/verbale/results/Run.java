package dev.verbale.results;

import dev.verbale.vocabulary.Outcome;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * A run, read whole.
 *
 * @param folder where it was read from
 * @param started the first thing known of it
 * @param duration from then to the last thing known of it
 * @param facts in the order in which they were first stated
 * @param tests in the order in which they started, which no thread's speed changes between two readings
 * @param containers in the order in which they started
 * @param entries what belongs to no test and no container
 * @since 0.2.0
 */
public record Run(
        String name,
        Path folder,
        Instant started,
        Duration duration,
        Map<String, String> facts,
        List<Worker> workers,
        List<TestResult> tests,
        List<ContainerResult> containers,
        List<Entry> entries,
        List<Problem> problems) {

    public Run {
        workers = List.copyOf(workers);
        tests = List.copyOf(tests);
        containers = List.copyOf(containers);
        entries = List.copyOf(entries);
        problems = List.copyOf(problems);
    }

    /** This, with {@code those} as its tests. */
    public Run withTests(List<TestResult> those) {
        return new Run(name, folder, started, duration, facts, workers, those, containers, entries, problems);
    }

    /** This, with {@code those} as its JVMs. */
    public Run withWorkers(List<Worker> those) {
        return new Run(name, folder, started, duration, facts, those, tests, containers, entries, problems);
    }

    /** What it came to, in numbers. */
    public Counts counts() {
        return Counts.of(this);
    }

    /** The tests that somebody has to look at, in order. */
    public List<TestResult> needingAttention() {
        return tests.stream()
                .filter(test -> test.outcome().needsAttention() && !test.superseded())
                .toList();
    }

    /** The tests that passed after an attempt that had not, in order. */
    public List<TestResult> flaky() {
        return tests.stream().filter(TestResult::recovered).toList();
    }

    /** Which part of the tests' time recording took, such as 0.003; 0 where no worker said. */
    public double overhead() {
        double testTime =
                tests.stream().mapToDouble(test -> test.duration().toNanos()).sum();
        double overhead = workers.stream()
                .mapToDouble(worker -> worker.overhead().toNanos())
                .sum();
        return testTime == 0 ? 0 : overhead / testTime;
    }

    /** The containers whose own set-up or tear-down somebody has to look at, in order; each as what it came to last. */
    @SuppressWarnings("ReferenceEquality") // the last of several that may be alike
    public List<ContainerResult> brokenContainers() {
        Map<String, ContainerResult> last = new HashMap<>();
        for (ContainerResult container : containers) last.put(container.key(), container);
        return containers.stream()
                .filter(c -> c.outcome().needsAttention() && last.get(c.key()) == c)
                .toList();
    }

    /** The outermost steps outside tests that did not pass, in order; not those of broken containers, which tell of them. */
    public List<Entry.StepEntry> failedOutsideTests() {
        List<Entry.StepEntry> failed = new ArrayList<>();
        gather(entries, failed);
        for (ContainerResult container : containers)
            if (!container.outcome().needsAttention()) gather(container.entries(), failed);
        return failed;
    }

    private static void gather(List<Entry> entries, List<Entry.StepEntry> failed) {
        for (Entry entry : entries) {
            if (!(entry instanceof Entry.StepEntry step)) continue;
            boolean failing =
                    step.outcome().equals(Outcome.FAILED) || step.outcome().equals(Outcome.ERRORED);
            if (failing) failed.add(step);
            else gather(step.entries(), failed);
        }
    }

    /** Which frames of a stack trace are the suite's own. */
    public OwnFrames ownFrames() {
        return new OwnFrames(workers.stream()
                .flatMap(worker -> worker.libraries().stream())
                .distinct()
                .toList());
    }

    /** What it does not hold, as far as it is known. */
    public Incomplete incomplete() {
        return Incomplete.of(this);
    }
}
