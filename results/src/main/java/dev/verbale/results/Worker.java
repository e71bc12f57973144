package dev.verbale.results;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;

/**
 * A JVM that recorded.
 *
 * @param module which module of the build it tested; empty where that has one only
 * @param ended whether its journal was closed; that of a JVM that was killed was not
 * @param missing how much it could not record, as it said last
 * @param missingByKind the same by what it was
 * @param overhead how much of its threads' time recording took; zero where its journal was not closed
 * @param libraries how the names of classes begin that its adapters say are not the suite's own
 * @since 0.2.0
 */
public record Worker(
        String name,
        long pid,
        String module,
        Instant started,
        boolean ended,
        long missing,
        Map<String, Long> missingByKind,
        Duration overhead,
        List<String> libraries) {

    public Worker {
        missingByKind = Map.copyOf(missingByKind);
        libraries = List.copyOf(libraries);
    }

    /** This one, as if its journal were closed: as by somebody who knows that nothing more will come. */
    public Worker asEnded() {
        return new Worker(name, pid, module, started, true, missing, missingByKind, overhead, libraries);
    }
}
