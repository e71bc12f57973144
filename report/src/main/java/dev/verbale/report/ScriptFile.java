package dev.verbale.report;

import dev.verbale.json.JsonOut;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.StreamWriteFeature;

/**
 * Data as a script: {@code verbale.CALL(ARGUMENTS);}. Whatever a test logged is inside JSON strings there, and the file is
 * never part of a page's own markup, so no text in it can end a string or a script.
 */
final class ScriptFile {

    private ScriptFile() {}

    /** Writes the call's one JSON argument. */
    @FunctionalInterface
    interface Argument {
        void write(JsonGenerator json) throws IOException;
    }

    static void write(Path file, String call, @Nullable String firstArgument, Argument argument) throws IOException {
        try (OutputStream out = Files.newOutputStream(file)) {
            begin(out, call, firstArgument);
            json(out, argument);
            end(out);
        }
    }

    /** Writes the call's one argument, which is JSON already. */
    @FunctionalInterface
    interface Text {
        void write(OutputStream out) throws IOException;
    }

    static void writeText(Path file, String call, String firstArgument, Text argument) throws IOException {
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file))) {
            begin(out, call, firstArgument);
            argument.write(out);
            end(out);
        }
    }

    private static void begin(OutputStream out, String call, @Nullable String firstArgument) throws IOException {
        out.write(("verbale." + call + "(").getBytes(StandardCharsets.UTF_8));
        if (firstArgument == null) return;
        json(out, json -> json.writeString(firstArgument));
        out.write(',');
    }

    private static void end(OutputStream out) throws IOException {
        out.write(");\n".getBytes(StandardCharsets.UTF_8));
    }

    private static void json(OutputStream out, Argument argument) throws IOException {
        JsonGenerator json = JsonOut.generator(out);
        json.configure(StreamWriteFeature.AUTO_CLOSE_TARGET, false);
        argument.write(json);
        json.flush();
    }
}
