package dev.verbale.history.digest;

import dev.verbale.results.ContainerResult;
import dev.verbale.results.Entry;
import dev.verbale.results.Run;
import dev.verbale.results.RunPart;
import dev.verbale.results.TestResult;
import dev.verbale.results.Worker;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * What is remembered of a run.
 *
 * @param run its name
 * @param facts what else was known of it, such as {@code commit}
 * @param isComplete whether nothing of it is missing: else a test that is not in there may have been cut off
 * @param isMadeUp whether nothing of this ever ran, as in a demo
 * @param tests each once, as its last attempt, in the order of their keys
 * @param reasons why tests failed
 * @param broken the keys of the classes that broke outside their tests, in order
 * @since 0.2.0
 */
public record RunDigest(
        String run,
        Instant started,
        Duration duration,
        Map<String, String> facts,
        boolean isComplete,
        boolean isMadeUp,
        List<TestDigest> tests,
        List<ReasonDigest> reasons,
        List<String> broken) {

    /** More steps of one test are loops, and say little about any of them. */
    static final int MAX_STEPS = 200;

    public RunDigest {
        facts = Map.copyOf(facts);
        tests = List.copyOf(tests);
        reasons = List.copyOf(reasons);
        broken = List.copyOf(broken);
    }

    /** Of a run in which no class broke outside its tests. */
    public RunDigest(
            String run,
            Instant started,
            Duration duration,
            Map<String, String> facts,
            boolean isComplete,
            boolean isMadeUp,
            List<TestDigest> tests,
            List<ReasonDigest> reasons) {
        this(run, started, duration, facts, isComplete, isMadeUp, tests, reasons, List.of());
    }

    /**
     * A test in it.
     *
     * @param name as a reader knows it, with the names around it, such as {@code Rota › swaps two days}
     * @param millis how long its last attempt took
     * @param attempts 1 or more
     * @param recovered whether it passed after an attempt that had not
     * @param reason the id of the reason why it failed; null where it did not, or nobody knows
     * @param steps the outermost steps of the last attempt, in order
     * @param origin where it stands, and whose it is
     */
    public record TestDigest(
            String key,
            String name,
            Outcome outcome,
            int millis,
            int attempts,
            boolean recovered,
            @Nullable String reason,
            List<StepTime> steps,
            Origin origin) {
        public TestDigest {
            steps = List.copyOf(steps);
        }

        /** Of which nothing is known but how it went. */
        public TestDigest(
                String key,
                String name,
                Outcome outcome,
                int millis,
                int attempts,
                boolean recovered,
                @Nullable String reason,
                List<StepTime> steps) {
            this(key, name, outcome, millis, attempts, recovered, reason, steps, Origin.UNKNOWN);
        }

        /**
         * Where a test stands in its suite, and whose it is.
         *
         * @param className null where it is of no class, or of a run that was remembered before this was
         * @param owner null where nobody says
         * @param worker which of the run's workers ran it, from 0; -1 where that is not known, or there was one only
         */
        public record Origin(
                @Nullable String className,
                @Nullable String methodName,
                List<String> tags,
                @Nullable String owner,
                int worker) {

            /** Of which nothing is known. */
            public static final Origin UNKNOWN = new Origin(null, null, List.of(), null, -1);

            /** Of a run with one worker. */
            public Origin(
                    @Nullable String className,
                    @Nullable String methodName,
                    List<String> tags,
                    @Nullable String owner) {
                this(className, methodName, tags, owner, -1);
            }

            /** This one, run by another worker. */
            public Origin on(int other) {
                return other == worker ? this : new Origin(className, methodName, tags, owner, other);
            }

            public Origin {
                tags = List.copyOf(tags);
            }
        }
    }

    /** A step and how long it took. */
    public record StepTime(String name, int millis) {}

    /** A reason, see {@link FailureReason}. */
    public record ReasonDigest(String id, String title) {}

    /** Of a run that was read. */
    public static RunDigest of(Run run) {
        return of(run, FailureReason.of(run));
    }

    /** Of a run that was read, for who has the reasons already; see {@link FailureReason#of(Run)}. */
    public static RunDigest of(Run run, List<FailureReason> found) {
        Map<String, String> reasonOf = new HashMap<>();
        List<ReasonDigest> reasons = new ArrayList<>();
        for (FailureReason reason : found) {
            reasons.add(new ReasonDigest(reason.id(), reason.title()));
            for (TestResult test : reason.tests()) reasonOf.put(test.key(), reason.id());
            for (ContainerResult container : reason.containers()) reasonOf.put(container.key(), reason.id());
        }
        // In an order that does not hang on threads: the tables of one night are those of the next, and are packed
        // better.
        Map<String, TestDigest> tests = new TreeMap<>();
        List<String> workers = run.workers().stream().map(Worker::name).toList();
        boolean hasSeveral = workers.size() > 1;
        for (TestResult test : run.tests()) {
            if (test.superseded()) continue;
            tests.put(
                    test.key(),
                    new TestDigest(
                            test.key(),
                            name(test),
                            test.outcome(),
                            millis(test.duration()),
                            test.attempt().number(),
                            test.recovered(),
                            test.outcome().needsAttention() ? reasonOf.get(test.key()) : null,
                            steps(test.entries()),
                            new TestDigest.Origin(
                                    test.className(),
                                    test.methodName(),
                                    test.tags(),
                                    test.about().owner(),
                                    hasSeveral ? workers.indexOf(test.course().worker()) : -1)));
        }
        return new RunDigest(
                run.name(),
                run.started(),
                run.duration(),
                run.facts(),
                run.incomplete().isNothing(),
                run.facts().containsKey(MADE_UP),
                List.copyOf(tests.values()),
                reasons,
                run.brokenContainers().stream()
                        .map(ContainerResult::key)
                        .sorted()
                        .toList());
    }

    /** The fact of a run that never was. */
    public static final String MADE_UP = "made up";

    private static String name(TestResult test) {
        List<String> names = new ArrayList<>(test.path());
        names.add(test.name());
        return String.join(" › ", names);
    }

    private static List<StepTime> steps(List<Entry> entries) {
        List<StepTime> steps = new ArrayList<>();
        for (Entry entry : entries)
            if (entry instanceof Entry.StepEntry step && steps.size() < MAX_STEPS)
                steps.add(new StepTime(step.name(), millis(step.duration())));
        return steps;
    }

    private static int millis(Duration duration) {
        return (int) Math.min(Integer.MAX_VALUE, duration.toMillis());
    }

    /** The branch that it ran on; empty where nobody said. */
    public String branch() {
        return facts.getOrDefault("branch", "");
    }

    /** The commit that it ran on; empty where nobody said. */
    public String commit() {
        return facts.getOrDefault("commit", "");
    }

    /** Which part of its suite it was meant to run, see {@link RunPart}; empty for the whole. */
    public String part() {
        return RunPart.of(facts);
    }

    /** How many tests need attention, and classes that broke outside their tests. */
    public int needingAttention() {
        return broken.size()
                + (int) tests.stream()
                        .filter(test -> test.outcome().needsAttention())
                        .count();
    }
}
