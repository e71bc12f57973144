package dev.verbale.report;

import dev.verbale.event.Failure;
import dev.verbale.report.TestDrafts.Draft;
import dev.verbale.results.ContainerResult;
import dev.verbale.results.Entry;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The row of a container that broke outside its tests. */
record ContainerRow(ContainerResult container, Draft draft) implements Row {

    @Override
    public String id() {
        return Row.idOfContainer(container.key());
    }

    @Override
    public String key() {
        return id();
    }

    @Override
    public String name() {
        int lost = container.notRun();
        String notRun = lost == 0 ? "" : ": " + lost + (lost == 1 ? " test" : " tests") + " did not run";
        return container.name() + " itself" + notRun;
    }

    @Override
    public List<String> path() {
        return container.path();
    }

    @Override
    public @Nullable String className() {
        return container.className();
    }

    @Override
    public Outcome outcome() {
        return container.outcome();
    }

    @Override
    public @Nullable String reason() {
        return container.reason();
    }

    @Override
    public @Nullable Failure failure() {
        return container.failure();
    }

    @Override
    public Instant started() {
        return container.started();
    }

    @Override
    public Duration duration() {
        return container.duration();
    }

    @Override
    public String worker() {
        return container.worker();
    }

    @Override
    public List<Entry> entries() {
        return container.entries();
    }
}
