package dev.verbale.engine.journal;

import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;

/** Microseconds since it was made; the wall clock is read once. */
public final class MonotonicClock {

    private static final long LONGEST_SECONDS = 366L * 86_400;

    private final long origin = System.nanoTime();
    private final Instant wall = Instant.now().truncatedTo(ChronoUnit.MICROS);

    public long micros() {
        return (System.nanoTime() - origin) / 1_000;
    }

    public Instant wallAtOrigin() {
        return wall;
    }

    /** {@code duration} in microseconds, never less than 0, and a year at most: readers refuse more, and it is a mistake. */
    public static long micros(Duration duration) {
        long seconds = Math.max(0, Math.min(duration.getSeconds(), LONGEST_SECONDS));
        return seconds * 1_000_000 + duration.getNano() / 1_000;
    }
}
