package dev.verbale.folder;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.random.RandomGenerator;

/**
 * What run folders are called: {@code 2026-11-24_103107_k3f9}. Date and time are in UTC, so that no change to summer
 * time bends the order; of the four last characters two count the milliseconds and two are drawn by chance. So names in
 * plain text order are runs in the order of time.
 */
public final class RunName {

    private static final DateTimeFormatter SECONDS =
            DateTimeFormatter.ofPattern("uuuu-MM-dd_HHmmss", Locale.ROOT).withZone(ZoneOffset.UTC);
    private static final int BASE = 36;

    private RunName() {}

    /** A name for a run that starts at {@code start}. */
    public static String of(Instant start, RandomGenerator chance) {
        int millis = start.getNano() / 1_000_000;
        return SECONDS.format(start) + "_" + twoDigits(millis) + twoDigits(chance.nextInt(BASE * BASE));
    }

    private static String twoDigits(int number) {
        return "" + Character.forDigit(number / BASE, BASE) + Character.forDigit(number % BASE, BASE);
    }
}
