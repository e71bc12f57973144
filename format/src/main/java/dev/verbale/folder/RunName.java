package dev.verbale.folder;

import dev.verbale.json.WallClockText;
import java.time.Instant;
import java.time.temporal.ChronoField;
import java.util.random.RandomGenerator;
import java.util.regex.Pattern;

/**
 * What run folders are called: {@code 2026-11-24_103107_k3f9}. Date and time are in UTC, so that no change to summer
 * time bends the order; of the four last characters two count the milliseconds and two are drawn by chance. So names in
 * plain text order are runs in the order of time.
 *
 * @since 0.2.0
 */
public final class RunName {

    private static final int BASE = 36;

    private static final String OWN = "\\d{4}-\\d\\d-\\d\\d_\\d{6}_[0-9a-z]{4}";

    private RunName() {}

    /** Whether {@code name} is one of these, and not one that somebody gave. */
    public static boolean isOwn(String name) {
        return Pattern.matches(OWN, name);
    }

    /** A name for a run that starts at {@code start}. */
    public static String of(Instant start, RandomGenerator random) {
        int millis = start.get(ChronoField.MILLI_OF_SECOND);
        String moment = WallClockText.of(start); // 2026-11-24T10:31:07.123456Z
        String seconds =
                moment.substring(0, 10) + "_" + moment.substring(11, 19).replace(":", "");
        return seconds + "_" + twoDigits(millis) + twoDigits(random.nextInt(BASE * BASE));
    }

    private static String twoDigits(int number) {
        return "" + Character.forDigit(number / BASE, BASE) + Character.forDigit(number % BASE, BASE);
    }
}
