package dev.verbale.history.compare;

import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.temporal.TemporalAdjusters;
import java.util.Locale;
import java.util.Optional;

/** Days and moments as people say them. */
final class Moments {

    private Moments() {}

    /**
     * Until when a run counts as one of {@code word}: the end of the day for {@code yesterday}, the name of a weekday (the last one before
     * {@code now}) and a date (ISO 8601), the moment itself for a date with a time. Empty for anything else.
     */
    static Optional<Instant> until(String word, Instant now, ZoneId zone) {
        LocalDate today = LocalDate.ofInstant(now, zone);
        String small = word.strip().toLowerCase(Locale.ROOT);
        if (small.equals("yesterday")) return Optional.of(endOf(today.minusDays(1), zone));
        for (DayOfWeek day : DayOfWeek.values())
            if (small.equals(day.name().toLowerCase(Locale.ROOT)))
                return Optional.of(endOf(today.with(TemporalAdjusters.previous(day)), zone));
        try {
            return Optional.of(endOf(LocalDate.parse(small), zone));
        } catch (DateTimeException noDay) {
            // a moment, or nothing of the kind
        }
        try {
            return Optional.of(Instant.parse(word.strip()));
        } catch (DateTimeException noInstant) {
            // with no zone, or nothing of the kind
        }
        try {
            return Optional.of(LocalDateTime.parse(word.strip()).atZone(zone).toInstant());
        } catch (DateTimeException nothing) {
            return Optional.empty();
        }
    }

    private static Instant endOf(LocalDate day, ZoneId zone) {
        return day.plusDays(1).atStartOfDay(zone).toInstant();
    }
}
