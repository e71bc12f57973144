package dev.verbale.results;

import java.time.Duration;
import java.util.Locale;

/**
 * Durations as a person reads them.
 *
 * @since 0.2.0
 */
public final class DurationText {

    private DurationText() {}

    /** Such as {@code 340 µs}, {@code 12 ms}, {@code 1.4 s}, {@code 17 s}, {@code 2 min 05 s}, {@code 3 h 07 min}. */
    public static String of(Duration duration) {
        long micros = duration.toNanos() / 1_000;
        if (micros < 1_000) return micros + " µs";
        if (micros < 1_000_000) return micros / 1_000 + " ms";
        if (micros < 9_950_000) return String.format(Locale.ROOT, "%.1f s", micros / 1e6);
        long seconds = Math.round(micros / 1e6);
        if (seconds < 60) return seconds + " s";
        if (seconds < 3_600) return String.format(Locale.ROOT, "%d min %02d s", seconds / 60, seconds % 60);
        return String.format(Locale.ROOT, "%d h %02d min", seconds / 3_600, seconds % 3_600 / 60);
    }
}
