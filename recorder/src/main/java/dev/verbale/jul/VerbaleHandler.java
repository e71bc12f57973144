package dev.verbale.jul;

import dev.verbale.spi.Capture;
import dev.verbale.spi.LogLine;
import java.util.logging.Handler;
import java.util.logging.Level;
import java.util.logging.LogManager;
import java.util.logging.LogRecord;
import java.util.logging.Logger;
import java.util.logging.SimpleFormatter;

/**
 * Puts each line of {@code java.util.logging} on the step that runs in the thread that logged it. One line in
 * {@code logging.properties}:
 *
 * <pre>handlers = java.util.logging.ConsoleHandler, dev.verbale.jul.VerbaleHandler</pre>
 *
 * <p>or {@link #install()} in code. Its threshold is {@code dev.verbale.jul.VerbaleHandler.level}, and everything where
 * that is not set.
 *
 * @since 0.2.0
 */
public final class VerbaleHandler extends Handler {

    private final SimpleFormatter formatter = new SimpleFormatter();

    /** As the log manager makes it. */
    public VerbaleHandler() {
        String level = LogManager.getLogManager().getProperty(VerbaleHandler.class.getName() + ".level");
        try {
            setLevel(level == null ? Level.ALL : Level.parse(level.strip()));
        } catch (IllegalArgumentException unknown) {
            setLevel(Level.ALL);
        }
    }

    /** Hears the root logger from now on; where that is so already, nothing changes. */
    public static void install() {
        Logger root = Logger.getLogger("");
        for (Handler handler : root.getHandlers()) if (handler instanceof VerbaleHandler) return;
        root.addHandler(new VerbaleHandler());
    }

    @Override
    public void publish(LogRecord line) {
        if (line == null || !isLoggable(line)) return;
        Capture.current()
                .log(() -> LogLine.of(formatter.formatMessage(line))
                        .level(word(line.getLevel().intValue()))
                        .logger(String.valueOf(line.getLoggerName()))
                        .thrown(line.getThrown())
                        .build());
    }

    /** In the words that other loggers use. */
    private static String word(int level) {
        if (level >= Level.SEVERE.intValue()) return "error";
        if (level >= Level.WARNING.intValue()) return "warn";
        if (level >= Level.INFO.intValue()) return "info";
        return level >= Level.FINE.intValue() ? "debug" : "trace";
    }

    @Override
    public void flush() {}

    @Override
    public void close() {}
}
