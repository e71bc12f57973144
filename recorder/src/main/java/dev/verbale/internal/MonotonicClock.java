package dev.verbale.internal;

import java.time.Instant;
import java.time.temporal.ChronoUnit;

/** Microseconds since it was made; the wall clock is read once. */
final class MonotonicClock {

    private final long origin = System.nanoTime();
    private final Instant wall = Instant.now().truncatedTo(ChronoUnit.MICROS);

    long micros() {
        return (System.nanoTime() - origin) / 1_000;
    }

    Instant wallAtOrigin() {
        return wall;
    }
}
