package dev.verbale.log4j;

import dev.verbale.spi.Capture;
import dev.verbale.spi.LogLine;
import java.util.Locale;
import org.apache.logging.log4j.core.Appender;
import org.apache.logging.log4j.core.Core;
import org.apache.logging.log4j.core.LogEvent;
import org.apache.logging.log4j.core.LoggerContext;
import org.apache.logging.log4j.core.appender.AbstractAppender;
import org.apache.logging.log4j.core.config.Property;
import org.apache.logging.log4j.core.config.plugins.Plugin;
import org.apache.logging.log4j.core.config.plugins.PluginAttribute;
import org.apache.logging.log4j.core.config.plugins.PluginFactory;

/**
 * Puts each log line, with level, logger, thread, context and throwable, on the step that runs in the thread that logged
 * it. One line in {@code log4j2-test.xml}, and a reference to it from the root logger:
 *
 * <pre>{@code <Verbale name="VERBALE"/>}</pre>
 *
 * <p>or {@link #install} in code. A threshold is set on the reference, or with Log4j's own filters.
 *
 * @since 0.2.0
 */
@Plugin(name = "Verbale", category = Core.CATEGORY_NAME, elementType = Appender.ELEMENT_TYPE)
public final class VerbaleAppender extends AbstractAppender {

    private static final String NAME = "VERBALE";

    private VerbaleAppender(String name) {
        super(name, null, null, true, Property.EMPTY_ARRAY);
    }

    /** As Log4j makes it from its configuration. */
    @PluginFactory
    public static VerbaleAppender create(@PluginAttribute(value = "name", defaultString = NAME) String name) {
        return new VerbaleAppender(name == null ? NAME : name);
    }

    /** Hears {@code context}'s root logger from now on; where that is so already, nothing changes. */
    public static void install(LoggerContext context) {
        if (context == null || context.getConfiguration().getAppender(NAME) != null) return;
        var appender = new VerbaleAppender(NAME);
        appender.start();
        context.getConfiguration().addAppender(appender);
        context.getConfiguration().getRootLogger().addAppender(appender, null, null);
        context.updateLoggers();
    }

    @Override
    public void append(LogEvent line) {
        Capture.current()
                .log(() -> LogLine.of(String.valueOf(line.getMessage().getFormattedMessage()))
                        .level(line.getLevel().name().toLowerCase(Locale.ROOT))
                        .logger(line.getLoggerName().isEmpty() ? "root" : line.getLoggerName())
                        .marker(
                                line.getMarker() == null
                                        ? null
                                        : line.getMarker().getName())
                        .thread(line.getThreadName())
                        .context(line.getContextData().toMap())
                        .thrown(line.getThrown())
                        .build());
    }
}
