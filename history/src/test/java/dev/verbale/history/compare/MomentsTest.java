package dev.verbale.history.compare;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.ZoneId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Days as people say them; the clock is that of a Monday morning in Rome. */
class MomentsTest {

    private static final Instant NOW = Instant.parse("2026-11-30T08:00:00Z");
    private static final ZoneId ROME = ZoneId.of("Europe/Rome");

    @ParameterizedTest
    @CsvSource({
        "friday, 2026-11-27T23:00:00Z",
        "Friday, 2026-11-27T23:00:00Z",
        "monday, 2026-11-23T23:00:00Z",
        "yesterday, 2026-11-29T23:00:00Z",
        "2026-10-24, 2026-10-24T22:00:00Z",
        "2026-11-27T18:30:00Z, 2026-11-27T18:30:00Z",
        "2026-11-27T18:30, 2026-11-27T17:30:00Z"
    })
    void a_day_lasts_to_its_end_and_a_weekday_is_the_last_one(String word, Instant until) {
        assertThat(Moments.until(word, NOW, ROME)).contains(until);
    }

    @Test
    void what_is_no_day_is_none() {
        for (String word : new String[] {"", "v2.3", "fri", "2026-13-01", "2026-11-27_221500_a07c", "main"})
            assertThat(Moments.until(word, NOW, ROME)).as(word).isEmpty();
    }
}
