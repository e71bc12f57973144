package dev.verbale.event;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A line was logged, by the test itself or by a logger. Made by {@link #of}; a component more changes who fills it and who
 * shows it, and nobody else.
 *
 * @param in the step, test or container it belongs to, or 0 for the run
 * @param level in small letters, such as {@code warn}, or {@code out} and {@code err} for the standard streams; null where
 *     the test itself said none
 * @param logger its name; null where the test itself logged
 * @param marker what the line was marked as, such as {@code AUDIT}, several with commas between; null for most
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
        @Nullable String marker,
        @Nullable String thread,
        Map<String, String> context,
        @Nullable Failure failure)
        implements Event.InScope {

    public LogWritten {
        context = context.isEmpty() ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(context));
    }

    /** A line of that text, and as yet nothing else. */
    public static Builder of(long at, int in, String text) {
        return new Builder(at, in, text);
    }

    /** A line of the test itself, of no level. */
    public static LogWritten text(long at, int in, String text, @Nullable String thread) {
        return of(at, in, text).thread(thread).build();
    }

    /** This line with another failure, as a reader makes it that knows what a shortened one stands for. */
    public LogWritten with(@Nullable Failure other) {
        return Objects.equals(other, failure)
                ? this
                : new LogWritten(at, in, level, logger, text, marker, thread, context, other);
    }

    /**
     * What may be said of a line beside its text. The components say what each is; not for several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final long at;
        private final int in;
        private final String text;
        private @Nullable String level;
        private @Nullable String logger;
        private @Nullable String marker;
        private @Nullable String thread;
        private Map<String, String> context = Map.of();
        private @Nullable Failure failure;

        private Builder(long at, int in, String text) {
            this.at = at;
            this.in = in;
            this.text = text;
        }

        public Builder level(@Nullable String word) {
            level = word;
            return this;
        }

        public Builder logger(@Nullable String name) {
            logger = name;
            return this;
        }

        public Builder marker(@Nullable String name) {
            marker = name;
            return this;
        }

        public Builder thread(@Nullable String name) {
            thread = name;
            return this;
        }

        public Builder context(Map<String, String> textsByName) {
            context = textsByName;
            return this;
        }

        public Builder failure(@Nullable Failure logged) {
            failure = logged;
            return this;
        }

        public LogWritten build() {
            return new LogWritten(at, in, level, logger, text, marker, thread, context, failure);
        }
    }
}
