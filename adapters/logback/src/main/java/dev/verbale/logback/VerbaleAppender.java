package dev.verbale.logback;

import ch.qos.logback.classic.Logger;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.classic.spi.IThrowableProxy;
import ch.qos.logback.classic.spi.ThrowableProxy;
import ch.qos.logback.core.UnsynchronizedAppenderBase;
import dev.verbale.spi.Capture;
import dev.verbale.spi.LogLine;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Marker;

/**
 * Puts each log line, with level, logger, thread, MDC and throwable, on the step that runs in the thread that logged it.
 * One line in {@code logback-test.xml}, and a reference to it from the root logger:
 *
 * <pre>{@code <appender name="VERBALE" class="dev.verbale.logback.VerbaleAppender"/>}</pre>
 *
 * <p>or {@link #install} in code. A threshold is set with Logback's own filters.
 *
 * @since 0.2.0
 */
public final class VerbaleAppender extends UnsynchronizedAppenderBase<ILoggingEvent> {

    private static final String NAME = "VERBALE";

    /** Hears {@code context}'s root logger from now on; where that is so already, nothing changes. */
    public static void install(LoggerContext context) {
        if (context == null) return;
        Logger root = context.getLogger(org.slf4j.Logger.ROOT_LOGGER_NAME);
        if (root.getAppender(NAME) != null) return;
        var appender = new VerbaleAppender();
        appender.setName(NAME);
        appender.setContext(context);
        appender.start();
        root.addAppender(appender);
    }

    @Override
    protected void append(ILoggingEvent line) {
        Capture.current()
                .log(() -> LogLine.of(String.valueOf(line.getFormattedMessage()))
                        .level(line.getLevel().toString().toLowerCase(Locale.ROOT))
                        .logger(line.getLoggerName())
                        .marker(marked(line.getMarkerList()))
                        .thread(line.getThreadName())
                        .context(line.getMDCPropertyMap())
                        .thrown(thrown(line.getThrowableProxy()))
                        .build());
    }

    private static @Nullable String marked(@Nullable List<Marker> markers) {
        return markers == null || markers.isEmpty()
                ? null
                : markers.stream().map(Marker::getName).collect(Collectors.joining(", "));
    }

    private static @Nullable Throwable thrown(@Nullable IThrowableProxy proxy) {
        return proxy instanceof ThrowableProxy real ? real.getThrowable() : null;
    }
}
