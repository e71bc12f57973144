package dev.orto.web;

import io.javalin.http.Context;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;

/** The application's log: a file, as those of most services. */
record OrtoLog(Path file) {

    static OrtoLog create() {
        try {
            return new OrtoLog(Files.createTempFile("orto-", ".log"));
        } catch (IOException none) {
            throw new UncheckedIOException(none);
        }
    }

    /** What broke while a request was answered, with the request's trace. */
    void error(Context ctx, Throwable broken) {
        String trace = String.valueOf(ctx.header("traceparent")).replaceAll("^00-(\\w+)-.*", "$1");
        var text = new StringBuilder(Instant.now().truncatedTo(ChronoUnit.MILLIS) + " ERROR [trace " + trace + "] "
                + ctx.method() + " " + ctx.path() + ": " + broken + "\n");
        for (StackTraceElement frame : broken.getStackTrace())
            if (frame.getClassName().startsWith("dev.orto."))
                text.append("    at ").append(frame).append('\n');
        try {
            Files.writeString(file, text, StandardOpenOption.APPEND);
        } catch (IOException full) {
            // an answer is worth more than its log
        }
    }

    void delete() {
        try {
            Files.deleteIfExists(file);
        } catch (IOException open) {
            // it is in the folder for what may go
        }
    }
}
