package dev.verbale.report;

import dev.verbale.event.Failure;
import dev.verbale.report.TestDrafts.Draft;
import dev.verbale.results.Entry;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.About;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The row of a test. One that is left out does not hold what happened in it: there may be 100,000 of them. */
record TestRow(TestResult test, boolean isLeftOut, Draft draft) implements Row {

    TestRow {
        if (isLeftOut) test = test.withEntries(List.of());
    }

    @Override
    public boolean isTest() {
        return true;
    }

    @Override
    public String id() {
        return test.id();
    }

    @Override
    public String key() {
        return test.key();
    }

    @Override
    public String name() {
        return test.name();
    }

    @Override
    public List<String> path() {
        return test.path();
    }

    @Override
    public @Nullable String className() {
        return test.className();
    }

    @Override
    public @Nullable String methodName() {
        return test.methodName();
    }

    @Override
    public List<String> tags() {
        return test.tags();
    }

    @Override
    public Outcome outcome() {
        return test.outcome();
    }

    @Override
    public @Nullable String reason() {
        return test.reason();
    }

    @Override
    public @Nullable Failure failure() {
        return test.failure();
    }

    @Override
    public Instant started() {
        return test.started();
    }

    @Override
    public Duration duration() {
        return test.duration();
    }

    @Override
    public String worker() {
        return test.worker();
    }

    @Override
    public String thread() {
        return test.thread();
    }

    @Override
    public About about() {
        return test.about();
    }

    @Override
    public int attempts() {
        return test.superseded() ? 1 : test.attempt().number();
    }

    @Override
    public boolean superseded() {
        return test.superseded();
    }

    @Override
    public boolean recovered() {
        return test.recovered();
    }

    @Override
    public List<String> blockedBy() {
        return test.blockedBy();
    }

    @Override
    public @Nullable String source() {
        return test.identity().source();
    }

    @Override
    public List<Entry> entries() {
        return test.entries();
    }
}
