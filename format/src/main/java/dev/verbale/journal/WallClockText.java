package dev.verbale.journal;

import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;

/**
 * Moments as journals and names of runs write them: ISO 8601 in UTC, to the microsecond. By hand, for the JDK's formatter
 * loads a hundred classes, and a JVM with one test would wait for them.
 */
public final class WallClockText {

    private WallClockText() {}

    /** Such as {@code 2026-11-24T10:31:07.123456Z}, always of that length for the years 0 to 9999. */
    public static String of(Instant moment) {
        LocalDateTime time = LocalDateTime.ofEpochSecond(moment.getEpochSecond(), moment.getNano(), ZoneOffset.UTC);
        var text = new StringBuilder(27);
        number(text, time.getYear(), 4).append('-');
        number(text, time.getMonthValue(), 2).append('-');
        number(text, time.getDayOfMonth(), 2).append('T');
        number(text, time.getHour(), 2).append(':');
        number(text, time.getMinute(), 2).append(':');
        number(text, time.getSecond(), 2).append('.');
        return number(text, time.getNano() / 1_000, 6).append('Z').toString();
    }

    private static StringBuilder number(StringBuilder text, int number, int digits) {
        String plain = Integer.toString(number);
        for (int i = plain.length(); i < digits; i++) text.append('0');
        return text.append(plain);
    }
}
