package dev.verbale.results.progress;

import dev.verbale.results.ContainerResult;
import dev.verbale.results.Problem;
import dev.verbale.results.Run;
import dev.verbale.results.TestResult;
import dev.verbale.results.Worker;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.summary.Headline;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * A run as far as it has come, told apart by what its journals hold: a JVM that has not closed its journal is still at work, and what it
 * has begun and not ended is running. A JVM that was killed looks the same; only that nothing is written any more tells.
 *
 * @param ended the run without what is running: its tests that have ended, and nothing that looks broken because it has not
 * @param running the tests that have begun and not ended, the one that began first at first
 * @param atWork the names of the workers that have not closed their journals
 * @since 0.2.0
 */
public record RunProgress(Run ended, List<TestResult> running, List<String> atWork) {

    public RunProgress {
        running = List.copyOf(running);
        atWork = List.copyOf(atWork);
    }

    /** Of a run as it was read just now. */
    public static RunProgress of(Run read) {
        Set<String> atWork = new HashSet<>();
        for (Worker worker : read.workers()) if (!worker.ended()) atWork.add(worker.name());
        List<TestResult> running = read.tests().stream()
                .filter(test -> isRunning(test.outcome(), test.course().worker(), atWork))
                .toList();
        return new RunProgress(
                ended(read, atWork),
                running,
                read.workers().stream()
                        .filter(one -> !one.ended())
                        .map(Worker::name)
                        .toList());
    }

    private static boolean isRunning(Outcome outcome, String worker, Set<String> atWork) {
        return outcome.equals(Outcome.UNFINISHED) && atWork.contains(worker);
    }

    private static Run ended(Run read, Set<String> atWork) {
        if (atWork.isEmpty()) return read;
        List<TestResult> tests = read.tests().stream()
                .filter(test -> !isRunning(test.outcome(), test.course().worker(), atWork))
                .toList();
        List<ContainerResult> containers = read.containers().stream()
                .filter(container -> !isRunning(container.outcome(), container.worker(), atWork))
                .toList();
        List<Problem> problems = read.problems().stream()
                .filter(problem -> !isOfTheEnd(problem, atWork))
                .toList();
        List<Worker> workers = read.workers().stream().map(Worker::asEnded).toList();
        return new Run(
                read.name(),
                read.folder(),
                read.started(),
                read.duration(),
                read.facts(),
                workers,
                tests,
                containers,
                read.entries(),
                problems);
    }

    /** A line that is being written was not torn. */
    private static boolean isOfTheEnd(Problem problem, Set<String> atWork) {
        return problem.what().startsWith("torn:")
                && atWork.stream().anyMatch(worker -> problem.file().endsWith("/" + worker + ".jsonl"));
    }

    /** Whether each JVM that is known has closed its journal. Another one may begin yet, as where a build has more modules. */
    public boolean isOver() {
        return atWork.isEmpty();
    }

    /** Such as {@code So far 5 of 31 tests did not pass: 3 failed, 2 errored, for 4 reasons.} Of a run that is over without the first words. */
    public String sentence(List<FailureReason> reasons) {
        String headline = Headline.of(ended, reasons);
        if (isOver()) return headline;
        return "So far " + headline.substring(0, 1).toLowerCase(Locale.ROOT) + headline.substring(1);
    }

    /**
     * Which part of the run is behind it, from 0 to 1: by its tests, or where nobody knows how many there will be, by its time. Never all
     * of it before it is over.
     *
     * @param expected what is known of the run before
     */
    public double share(Expectation expected) {
        if (isOver()) return 1;
        double share = 0;
        if (expected.tests() > 0) share = (double) ended.counts().all() / expected.tests();
        else if (!expected.duration().isZero()) share = seconds(ended.duration()) / seconds(expected.duration());
        return Math.min(0.99, share);
    }

    private static double seconds(Duration duration) {
        return duration.toNanos() / 1e9;
    }

    /**
     * What a run will probably be like.
     *
     * @param tests how many; 0 where nobody knows
     * @param duration zero where nobody knows
     */
    public record Expectation(int tests, Duration duration) {
        /** Of a run without another before it. */
        public static final Expectation NONE = new Expectation(0, Duration.ZERO);
    }
}
