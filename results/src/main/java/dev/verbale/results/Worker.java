package dev.verbale.results;

import java.time.Duration;
import java.time.Instant;
import java.util.Map;

/**
 * A JVM that recorded.
 *
 * @param ended whether it said goodbye; one that was killed did not
 * @param missing how much it could not record, as it said last
 * @param missingByKind the same by what it was
 * @param cost how much of its threads' time recording took; zero where it did not say goodbye
 */
public record Worker(
        String name,
        long pid,
        Instant started,
        boolean ended,
        long missing,
        Map<String, Long> missingByKind,
        Duration cost) {

    public Worker {
        missingByKind = Map.copyOf(missingByKind);
    }
}
