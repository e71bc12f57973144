package dev.verbale.results;

import dev.verbale.event.Failure;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One attempt of one test.
 *
 * @param identity which test
 * @param attempt which attempt of it in its run
 * @param end how it ended
 * @param course when and where it ran
 * @param entries what happened in it, in order
 * @since 0.2.0
 */
public record TestResult(Identity identity, Attempt attempt, End end, Course course, List<Entry> entries) {

    public TestResult {
        entries = List.copyOf(entries);
    }

    /**
     * Which test it is.
     *
     * @param key the same in every run, with its module, see {@link ModuleKey}
     * @param module which module of the build it belongs to; empty where that has one only
     * @param name what a reader sees
     * @param path the names of the classes around it, outermost first
     * @param about what was said of it
     * @param source where it is written, as a file and a line, where its class does not say it
     */
    public record Identity(
            String key,
            String module,
            String name,
            List<String> path,
            @Nullable String className,
            @Nullable String methodName,
            List<String> tags,
            About about,
            @Nullable String source) {
        public Identity {
            path = List.copyOf(path);
            tags = List.copyOf(tags);
        }
    }

    /**
     * Which attempt it is.
     *
     * @param number 1, or more where the run ran the same test before
     * @param superseded whether it needs no attention any more, because the run made another attempt later
     * @param recovered whether it passed after an attempt that had not, in the same run
     */
    public record Attempt(int number, boolean superseded, boolean recovered) {
        /** Of a test that its run ran once. */
        public static final Attempt ONLY = new Attempt(1, false, false);
    }

    /**
     * How it ended.
     *
     * @param reason why it was skipped or aborted
     * @param failure why it did not pass, where it did not
     * @param blockedBy the keys of the tests or containers because of which it was not run
     */
    public record End(
            Outcome outcome,
            @Nullable String reason,
            @Nullable Failure failure,
            List<String> blockedBy) {
        public End {
            blockedBy = List.copyOf(blockedBy);
        }
    }

    /**
     * When and where it ran.
     *
     * @param duration until its end, or until the last thing known of it where it is unfinished
     * @param worker the JVM that ran it
     */
    public record Course(Instant started, Duration duration, String worker, String thread) {}

    /** Names this attempt in its run: the key, and which attempt where it is not the first. */
    public String id() {
        return attempt.number() == 1 ? key() : key() + "~" + attempt.number();
    }

    /** This test with {@code one} as its attempt: which one it is becomes known when all tests of the run are. */
    TestResult as(Attempt one) {
        return one.equals(attempt) ? this : new TestResult(identity, one, end, course, entries);
    }

    /** This, with {@code those} as what happened in it. */
    public TestResult withEntries(List<Entry> those) {
        return new TestResult(identity, attempt, end, course, those);
    }

    public String key() {
        return identity.key();
    }

    public String module() {
        return identity.module();
    }

    public String name() {
        return identity.name();
    }

    public List<String> path() {
        return identity.path();
    }

    public @Nullable String className() {
        return identity.className();
    }

    public @Nullable String methodName() {
        return identity.methodName();
    }

    public List<String> tags() {
        return identity.tags();
    }

    public About about() {
        return identity.about();
    }

    public Outcome outcome() {
        return end.outcome();
    }

    public @Nullable String reason() {
        return end.reason();
    }

    public @Nullable Failure failure() {
        return end.failure();
    }

    public List<String> blockedBy() {
        return end.blockedBy();
    }

    public Instant started() {
        return course.started();
    }

    public Duration duration() {
        return course.duration();
    }

    public String worker() {
        return course.worker();
    }

    public String thread() {
        return course.thread();
    }

    public boolean superseded() {
        return attempt.superseded();
    }

    public boolean recovered() {
        return attempt.recovered();
    }
}
