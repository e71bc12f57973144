package dev.verbale.cli;

import java.io.Console;
import java.io.PrintWriter;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import picocli.CommandLine;

/** Where the JVM starts. */
public final class Main {

    private Main() {}

    /** From JDK 22 on there is a console where there is no terminal, too. */
    private static boolean isTerminal(Console console) {
        try {
            return (Boolean) Console.class.getMethod("isTerminal").invoke(console);
        } catch (ReflectiveOperationException anOlderJdk) {
            return true;
        }
    }

    /** Runs the command and ends the JVM with its exit code. */
    public static void main(String[] arguments) {
        // A pipe is read by a program, and programs read UTF-8; a terminal says what it understands.
        @SuppressWarnings("SystemConsoleNull") // see isTerminal
        Console console = System.console();
        Charset charset = console != null && isTerminal(console) ? console.charset() : StandardCharsets.UTF_8;
        var out = new PrintWriter(System.out, true, charset);
        var err = new PrintWriter(System.err, true, charset);
        int code = commandLine(out, err).execute(arguments);
        out.flush();
        err.flush();
        System.exit(code);
    }

    static CommandLine commandLine(PrintWriter out, PrintWriter err) {
        CommandLine commands = new CommandLine(new VerbaleCommand())
                .setOut(out)
                .setErr(err)
                .setCaseInsensitiveEnumValuesAllowed(true)
                .setExecutionStrategy(parsed -> {
                    try {
                        return new CommandLine.RunLast().execute(parsed);
                    } finally {
                        OpenArchives.close();
                    }
                })
                .setExecutionExceptionHandler(new FailureMessages());
        CommandList.in(commands);
        return commands;
    }
}
