package dev.verbale;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** When a line of a log was written, as far as it says it: as ISO 8601 has it, or with a space and a comma as many logs do. */
final class LineTime {

    /** What stands before it, such as a level, is short. */
    private static final int LONGEST_BEFORE = 60;

    private static final Pattern TIME = Pattern.compile(
            "(\\d{4}-\\d\\d-\\d\\d)[T ](\\d\\d:\\d\\d:\\d\\d)(?:[.,](\\d{1,9}))?\\s?(Z|[+-]\\d\\d:?\\d\\d)?");

    private LineTime() {}

    /** Null where it says none. Where it says no zone, the later one of what it can mean here and in UTC. */
    static @Nullable Instant of(String line) {
        Matcher time = TIME.matcher(line);
        time.region(0, Math.min(line.length(), LONGEST_BEFORE + 40));
        if (!time.find()) return null;
        String fraction = time.group(3) == null ? "" : "." + time.group(3);
        String text = time.group(1) + "T" + time.group(2) + fraction;
        String zone = time.group(4);
        try {
            if (zone != null) return OffsetDateTime.parse(text + colon(zone)).toInstant();
            LocalDateTime local = LocalDateTime.parse(text);
            Instant here = local.atZone(ZoneId.systemDefault()).toInstant();
            Instant universal = local.toInstant(ZoneOffset.UTC);
            return here.isAfter(universal) ? here : universal;
        } catch (DateTimeException none) {
            return null;
        }
    }

    private static String colon(String zone) {
        return zone.length() == 5 ? zone.substring(0, 3) + ":" + zone.substring(3) : zone;
    }
}
