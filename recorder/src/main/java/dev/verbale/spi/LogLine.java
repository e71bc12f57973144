package dev.verbale.spi;

import dev.verbale.border.SafeCopies;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a logger wrote. All that is not said of it may be missing; more may come to be said in a later version.
 *
 * <pre>{@code
 * Capture.current().log(() -> LogLine.of("the pump stands still")
 *         .level("warn")
 *         .logger("dev.orto.Pump")
 *         .build());
 * }</pre>
 *
 * @since 0.2.0
 */
public final class LogLine {

    private final @Nullable String text;
    private final @Nullable String level;
    private final @Nullable String logger;
    private final @Nullable String marker;
    private final String thread;
    private final Map<String, String> context;
    private final @Nullable Throwable thrown;

    private LogLine(Builder builder) {
        this.text = builder.text;
        this.level = builder.level;
        this.logger = builder.logger;
        this.marker = builder.marker;
        this.thread = builder.thread == null ? Thread.currentThread().getName() : builder.thread;
        this.context = SafeCopies.textsByName(builder.context);
        this.thrown = builder.thrown;
    }

    /** A line of that text, which the current thread writes. */
    public static Builder of(@Nullable String text) {
        return new Builder(text);
    }

    /** What was logged, with its values in place; null where a logger was given null. */
    public @Nullable String text() {
        return text;
    }

    /** In small letters, such as {@code warn}; null where the logger has none. */
    public @Nullable String level() {
        return level;
    }

    /** The name of the logger; null where it has none. */
    public @Nullable String logger() {
        return logger;
    }

    /** What it was marked as, such as {@code AUDIT}, several with commas between; null for most. */
    public @Nullable String marker() {
        return marker;
    }

    /** The name of the thread that wrote it, which is not the recording one where a logger works asynchronously. */
    public String thread() {
        return thread;
    }

    /** What the logger knew of its surroundings, such as a mapped diagnostic context; often empty. */
    public Map<String, String> context() {
        return context;
    }

    /** What was logged with it, or null. */
    public @Nullable Throwable thrown() {
        return thrown;
    }

    /**
     * What is said of a line. Each call is explained by the accessor of its name; a value may be null, and is missing then. Not for
     * several threads at once.
     *
     * @since 0.2.0
     */
    public static final class Builder {
        private final @Nullable String text;
        private @Nullable String level;
        private @Nullable String logger;
        private @Nullable String marker;
        private @Nullable String thread;
        private @Nullable Map<String, String> context;
        private @Nullable Throwable thrown;

        private Builder(@Nullable String text) {
            this.text = text;
        }

        /** See {@link LogLine#level()}. */
        public Builder level(@Nullable String word) {
            level = word;
            return this;
        }

        /** See {@link LogLine#logger()}. */
        public Builder logger(@Nullable String name) {
            logger = name;
            return this;
        }

        /** See {@link LogLine#marker()}. */
        public Builder marker(@Nullable String name) {
            marker = name;
            return this;
        }

        /** See {@link LogLine#thread()}; the current thread where it is not called. */
        public Builder thread(@Nullable String name) {
            thread = name;
            return this;
        }

        /** See {@link LogLine#context()}. What it holds is copied by {@link #build()}. */
        public Builder context(@Nullable Map<String, String> textsByName) {
            context = textsByName;
            return this;
        }

        /** See {@link LogLine#thrown()}. */
        public Builder thrown(@Nullable Throwable logged) {
            thrown = logged;
            return this;
        }

        /** The line. */
        public LogLine build() {
            return new LogLine(this);
        }
    }
}
