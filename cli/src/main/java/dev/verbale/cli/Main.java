package dev.verbale.cli;

import java.io.Console;
import java.io.PrintWriter;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import picocli.CommandLine;

/** Where the JVM starts. */
public final class Main {

    private Main() {}

    /** Runs the command and ends the JVM with its exit code. */
    public static void main(String[] arguments) {
        // A pipe is read by a program, and programs read UTF-8; a terminal says what it understands.
        Console console = System.console();
        Charset charset = console == null ? StandardCharsets.UTF_8 : console.charset();
        var out = new PrintWriter(System.out, true, charset);
        var err = new PrintWriter(System.err, true, charset);
        int code = commandLine(out, err).execute(arguments);
        out.flush();
        err.flush();
        System.exit(code);
    }

    static CommandLine commandLine(PrintWriter out, PrintWriter err) {
        return new CommandLine(new VerbaleCommand())
                .setOut(out)
                .setErr(err)
                .setCaseInsensitiveEnumValuesAllowed(true)
                .setExecutionExceptionHandler(new FailureMessages());
    }
}
