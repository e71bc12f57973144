package dev.verbale.event;

import org.jspecify.annotations.Nullable;

/**
 * Something was checked, and the test went on whatever came out.
 *
 * @param in the step, test or container it belongs to, or 0 for the run
 * @param exchange the id of the exchange whose answer was checked, or 0 where nobody said one
 * @since 0.2.0
 */
public record CheckMade(
        long at,
        int in,
        String name,
        Outcome outcome,
        @Nullable Failure failure,
        int exchange) implements Event {}
