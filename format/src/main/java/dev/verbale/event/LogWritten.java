package dev.verbale.event;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A line was logged, by the test itself or by a logger.
 *
 * @param in the step, test or container it belongs to, or 0 for the run
 * @param level in small letters, such as {@code warn}, or {@code out} and {@code err} for the standard streams; null where
 *     the test itself said none
 * @param logger its name; null where the test itself logged
 * @param thread the thread's name where it is not the test's own, else null
 * @param context what the logger knew of its surroundings, such as a mapped diagnostic context; empty for most
 * @param failure the throwable that was logged with it
 * @since 0.2.0
 */
public record LogWritten(
        long at,
        int in,
        @Nullable String level,
        @Nullable String logger,
        String text,
        @Nullable String thread,
        Map<String, String> context,
        @Nullable Failure failure)
        implements Event {

    public LogWritten {
        context = context.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(context));
    }

    /** A line of the test itself, of no level. */
    public static LogWritten text(long at, int in, String text, @Nullable String thread) {
        return new LogWritten(at, in, null, null, text, thread, Map.of(), null);
    }
}
