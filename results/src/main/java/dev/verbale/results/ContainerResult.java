package dev.verbale.results;

import dev.verbale.event.Failure;
import dev.verbale.vocabulary.Outcome;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One attempt of something that holds tests.
 *
 * @param path the names of the classes around it, outermost first
 * @param outcome of the container itself, whatever its tests did
 * @param notRun how many of its tests were never started because of that
 * @param entries what happened in it outside its tests, such as the set-up of a class
 * @since 0.2.0
 */
public record ContainerResult(
        String key,
        String name,
        List<String> path,
        @Nullable String className,
        Outcome outcome,
        @Nullable String reason,
        @Nullable Failure failure,
        int notRun,
        Instant started,
        Duration duration,
        String worker,
        List<Entry> entries) {

    public ContainerResult {
        path = List.copyOf(path);
        entries = List.copyOf(entries);
    }
}
