package dev.verbale.cli;

import dev.verbale.changes.ChangesException;
import dev.verbale.query.QueryException;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileSystemException;
import java.util.Map;
import picocli.CommandLine;
import picocli.CommandLine.IExecutionExceptionHandler;
import picocli.CommandLine.ParseResult;

/** Turns what went wrong into one line on the standard error and an exit code; a stack trace only where we are to blame. */
final class FailureMessages implements IExecutionExceptionHandler {

    /** Whose message says all: what is wrong, where, and what to do. */
    private static final Map<Class<? extends Exception>, Integer> EXPLAINED = Map.of(
            NotWritten.class, ExitCodes.NOT_WRITTEN,
            YamlFormatException.class, ExitCodes.USAGE,
            ChangesException.class, ExitCodes.USAGE,
            QueryException.class, ExitCodes.USAGE,
            ResultsFormatException.class, ExitCodes.NO_RUN);

    @Override
    public int handleExecutionException(Exception thrown, CommandLine command, ParseResult arguments) throws Exception {
        Exception failure = thrown instanceof UncheckedIOException unchecked && unchecked.getCause() != null
                ? unchecked.getCause()
                : thrown;
        for (Map.Entry<Class<? extends Exception>, Integer> explained : EXPLAINED.entrySet()) {
            if (!explained.getKey().isInstance(failure)) continue;
            say(command, String.valueOf(failure.getMessage()));
            return explained.getValue();
        }
        if (failure instanceof IOException unreadable) {
            say(command, "cannot read: " + reason(unreadable));
            return ExitCodes.NO_RUN;
        }
        say(command, "this is a fault in Verbale. What follows helps to find it:");
        failure.printStackTrace(command.getErr());
        return ExitCodes.BROKEN;
    }

    private static void say(CommandLine command, String message) {
        command.getErr().println("verbale: " + message);
    }

    /** A file system's exception gives only the file as its message where it has no more to say. */
    static String reason(IOException failure) {
        if (failure instanceof FileSystemException about && about.getReason() == null)
            return about.getFile() + " (" + failure.getClass().getSimpleName().replace("Exception", "") + ")";
        return String.valueOf(failure.getMessage());
    }

    /** The page could not be written. */
    static final class NotWritten extends Exception {
        private static final long serialVersionUID = 1;

        NotWritten(String what, IOException why) {
            super(what + ": " + reason(why), why);
        }
    }
}
