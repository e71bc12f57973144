package dev.verbale.spi;

import dev.verbale.border.SafeCopies;
import dev.verbale.vocabulary.Outcome;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How a test or a container ended. More may come to be said in a later version.
 *
 * <pre>{@code
 * lifecycle.endTest(test, TestEnd.threw(failure));
 * }</pre>
 *
 * @since 0.2.0
 */
public final class TestEnd {

    private final @Nullable Outcome outcome;
    private final @Nullable String reason;
    private final @Nullable Throwable failure;
    private final List<Throwable> others;
    private final List<String> blockedBy;
    private final @Nullable Long at;

    private TestEnd(Builder builder) {
        this.outcome = builder.outcome;
        this.reason = builder.reason;
        this.failure = builder.failure;
        this.others = SafeCopies.list(builder.others);
        this.blockedBy = SafeCopies.list(builder.blockedBy);
        this.at = builder.at;
    }

    /** The test did what it should. */
    public static TestEnd passed() {
        return of(Outcome.PASSED).build();
    }

    /** The test was not run, and {@code reason} says why. */
    public static TestEnd skipped(String reason) {
        return of(Outcome.SKIPPED).reason(reason).build();
    }

    /** The test was not run, for what has the keys {@code blockedBy} did not do what it should. */
    public static TestEnd blocked(String reason, List<String> blockedBy) {
        return of(Outcome.SKIPPED).reason(reason).blockedBy(blockedBy).build();
    }

    /** The test was given up: an assumption did not hold. */
    public static TestEnd aborted(@Nullable Throwable assumption) {
        return of(Outcome.ABORTED)
                .failure(assumption)
                .build(); // the recorder asks it for its message, and stands what it does
    }

    /** The test failed for a reason that its author knows. */
    public static TestEnd expectedFailure(String reason, Throwable failure) {
        return of(Outcome.EXPECTED_FAILURE).reason(reason).failure(failure).build();
    }

    /** The test passed although its author expected a failure. */
    public static TestEnd passedUnexpectedly(String reason) {
        return of(Outcome.PASSED).reason(reason).build();
    }

    /** The test threw; whether that is a failure, an error or an assumption follows from what was thrown. */
    public static TestEnd threw(Throwable failure) {
        return of(null).failure(failure).build();
    }

    /** As {@link #threw} of the first, with the others beside it; the test passed where there is none. */
    public static TestEnd threwAll(List<? extends Throwable> failures) {
        List<Throwable> all = SafeCopies.list(failures);
        return all.isEmpty()
                ? passed()
                : of(null).failure(all.get(0))
                        .others(all.subList(1, all.size()))
                        .build();
    }

    /** The test ended like that, or, where {@code outcome} is null, as follows from what was thrown. */
    public static Builder of(@Nullable Outcome outcome) {
        return new Builder(outcome);
    }

    /** This end at {@code micros}, by {@link Context#now}: a framework may say nothing after the last tear-down. */
    public TestEnd at(long micros) {
        Builder later =
                of(outcome).reason(reason).failure(failure).others(others).blockedBy(blockedBy);
        later.at = micros;
        return later.build();
    }

    /** Null where it follows from {@link #failure()}. */
    public @Nullable Outcome outcome() {
        return outcome;
    }

    /** Why it was skipped or aborted, where that is known; else an assumption's own message. */
    public @Nullable String reason() {
        return reason;
    }

    /** What was thrown, where something was. */
    public @Nullable Throwable failure() {
        return failure;
    }

    /** What was thrown after {@link #failure()}, as by tear-downs, in order; empty for most. */
    public List<Throwable> others() {
        return others;
    }

    /** The keys of the tests or containers because of which it was not run. */
    public List<String> blockedBy() {
        return blockedBy;
    }

    /** When, by {@link Context#now}, where it is recorded later than it was; null for now. */
    public @Nullable Long at() {
        return at;
    }

    /**
     * What is said of an end. Each call is explained by the accessor of its name. Not for several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final @Nullable Outcome outcome;
        private @Nullable String reason;
        private @Nullable Throwable failure;
        private @Nullable List<Throwable> others;
        private @Nullable List<String> blockedBy;
        private @Nullable Long at;

        private Builder(@Nullable Outcome outcome) {
            this.outcome = outcome;
        }

        /** See {@link TestEnd#reason()}. */
        public Builder reason(@Nullable String why) {
            reason = why;
            return this;
        }

        /** See {@link TestEnd#failure()}. */
        public Builder failure(@Nullable Throwable thrown) {
            failure = thrown;
            return this;
        }

        /** See {@link TestEnd#others()}. What it holds is copied by {@link #build()}. */
        public Builder others(@Nullable List<Throwable> thrown) {
            others = thrown;
            return this;
        }

        /** See {@link TestEnd#blockedBy()}. What it holds is copied by {@link #build()}. */
        public Builder blockedBy(@Nullable List<String> keys) {
            blockedBy = keys;
            return this;
        }

        /** All that was said. */
        public TestEnd build() {
            return new TestEnd(this);
        }
    }
}
