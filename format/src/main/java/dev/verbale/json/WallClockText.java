package dev.verbale.json;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneOffset;

/**
 * Moments as journals and names of runs write them: ISO 8601 in UTC, to the microsecond. By hand, for the JDK's formatter
 * loads a hundred classes, and a JVM with one test would wait for them.
 *
 * @since 0.2.0
 */
public final class WallClockText {

    private static final Instant FIRST = Instant.EPOCH;
    /** The nanoseconds from the first to the last fit into a number. */
    private static final Instant LAST = Instant.ofEpochSecond(7_258_118_400L); // 2200

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

    /**
     * The moment that {@code text} says.
     *
     * @throws DateTimeException where it says none, or one that no machine's clock shows, mistaken and unset ones included
     */
    public static Instant read(String text) {
        Instant moment = Instant.parse(text);
        if (!isPossible(moment)) throw new DateTimeException("no time of a test run: " + text);
        return moment;
    }

    /** Whether a machine's clock may have shown it while tests ran; whoever reads files of others asks. */
    public static boolean isPossible(Instant moment) {
        return !moment.isBefore(FIRST) && moment.isBefore(LAST);
    }

    private static StringBuilder number(StringBuilder text, int number, int digits) {
        String plain = Integer.toString(number);
        for (int i = plain.length(); i < digits; i++) text.append('0');
        return text.append(plain);
    }
}
