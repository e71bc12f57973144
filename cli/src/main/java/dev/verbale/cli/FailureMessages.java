package dev.verbale.cli;

import dev.verbale.results.ResultsFormatException;
import java.io.IOException;
import java.nio.file.FileSystemException;
import picocli.CommandLine;
import picocli.CommandLine.IExecutionExceptionHandler;
import picocli.CommandLine.ParseResult;

/** Turns what went wrong into one line on the standard error and an exit code; a stack trace only where we are to blame. */
final class FailureMessages implements IExecutionExceptionHandler {

    @Override
    public int handleExecutionException(Exception failure, CommandLine command, ParseResult arguments)
            throws Exception {
        if (failure instanceof NotWritten notWritten) {
            say(command, String.valueOf(notWritten.getMessage()));
            return ExitCodes.NOT_WRITTEN;
        }
        if (failure instanceof ResultsFormatException noRun) {
            say(command, String.valueOf(noRun.getMessage()));
            return ExitCodes.NO_RUN;
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
