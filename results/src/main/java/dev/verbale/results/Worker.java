package dev.verbale.results;

import java.time.Instant;

/**
 * A JVM that recorded.
 *
 * @param ended whether it said goodbye; one that was killed did not
 * @param missing how many events it could not write
 */
public record Worker(String name, long pid, Instant started, boolean ended, long missing) {}
