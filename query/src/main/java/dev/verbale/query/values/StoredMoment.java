package dev.verbale.query.values;

import java.time.Instant;
import java.time.temporal.ChronoUnit;

/** A moment as every table has it: to the millisecond, by which rows of several are put together. */
public final class StoredMoment {

    private StoredMoment() {}

    /** {@code moment}, rounded as databases round. */
    public static Instant of(Instant moment) {
        return moment.plusNanos(500_000).truncatedTo(ChronoUnit.MILLIS);
    }
}
