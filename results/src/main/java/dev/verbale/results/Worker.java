package dev.verbale.results;

import java.time.Duration;
import java.time.Instant;

/**
 * A JVM that recorded.
 *
 * @param ended whether it said goodbye; one that was killed did not
 * @param missing how many events it could not write
 * @param cost how much of its threads' time recording took; zero where it did not say goodbye
 */
public record Worker(String name, long pid, Instant started, boolean ended, long missing, Duration cost) {}
