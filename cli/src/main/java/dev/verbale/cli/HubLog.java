package dev.verbale.cli;

import ch.qos.logback.classic.Level;
import ch.qos.logback.classic.LoggerContext;
import ch.qos.logback.classic.encoder.JsonEncoder;
import ch.qos.logback.classic.spi.ILoggingEvent;
import ch.qos.logback.core.ConsoleAppender;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** What a hub says while it runs: JSON lines on the standard error. Who has the command line in another program logs as that does. */
final class HubLog {

    private HubLog() {}

    /** @param withRequests each of them, and not warnings alone */
    static void begin(boolean withRequests) {
        try {
            if (LoggerFactory.getILoggerFactory() instanceof LoggerContext context) begin(context, withRequests);
        } catch (NoClassDefFoundError another) {
            // in another program, with another logger
        }
    }

    private static void begin(LoggerContext context, boolean withRequests) {
        context.reset();
        var encoder = new JsonEncoder();
        encoder.setContext(context);
        encoder.setWithNanoseconds(false);
        encoder.setWithSequenceNumber(false);
        encoder.setWithContext(false);
        encoder.setWithMDC(false);
        encoder.setWithArguments(false);
        encoder.setWithMessage(false);
        encoder.setWithFormattedMessage(true);
        encoder.start();
        var lines = new ConsoleAppender<ILoggingEvent>();
        lines.setContext(context);
        lines.setTarget("System.err");
        lines.setEncoder(encoder);
        lines.start();
        ch.qos.logback.classic.Logger root = context.getLogger(Logger.ROOT_LOGGER_NAME);
        root.setLevel(Level.WARN);
        root.addAppender(lines);
        context.getLogger("org.flywaydb").setLevel(Level.ERROR); // of databases that are newer than it
        if (withRequests) context.getLogger("dev.verbale.hub").setLevel(Level.INFO);
    }
}
