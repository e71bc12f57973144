package dev.verbale.cli;

import java.io.Console;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.Writer;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import picocli.CommandLine;

/** Where the JVM starts. */
public final class Main {

    static final PrintWriter NOWHERE = new PrintWriter(Writer.nullWriter());

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
    public static void main(String[] arguments) throws IOException {
        // A pipe is read by a program, and programs read UTF-8; a terminal says what it understands.
        @SuppressWarnings("SystemConsoleNull") // see isTerminal
        Console console = System.console();
        Charset charset = console != null && isTerminal(console) ? console.charset() : StandardCharsets.UTF_8;
        var out = new PrintWriter(System.out, true, charset);
        var err = new PrintWriter(System.err, true, charset);
        int code = isForVersion(arguments)
                ? version(out)
                : commandLine(out, err, arguments).execute(arguments);
        out.flush();
        err.flush();
        System.exit(code);
    }

    /** Asked by scripts, again and again: without the library that reads arguments, which takes most of the time. */
    private static boolean isForVersion(String... arguments) {
        return arguments.length == 1 && (arguments[0].equals("--version") || arguments[0].equals("-V"));
    }

    private static int version(PrintWriter out) throws IOException {
        for (String line : new Version().getVersion()) out.println(line);
        return ExitCodes.DONE;
    }

    /** Such as it is started with {@code arguments}: of all the commands only the one that they name is loaded, where they name one. */
    static CommandLine commandLine(PrintWriter out, PrintWriter err, String... arguments) {
        CommandLine commands = new CommandLine(new VerbaleCommand());
        commands.addSubcommand("help", new HelpCommand());
        for (Commands one : needed(arguments)) commands.addSubcommand(one.word(), one.type());
        commands.addSubcommand("completion", new CompletionCommand());
        commands.setOut(out)
                .setErr(err)
                .setCaseInsensitiveEnumValuesAllowed(true)
                .setExecutionStrategy(parsed -> {
                    try {
                        return new CommandLine.RunLast().execute(parsed);
                    } finally {
                        OpenArchives.close();
                    }
                })
                .setParameterExceptionHandler(new WrongWords())
                .setExecutionExceptionHandler(new FailureMessages());
        HelpText.in(commands);
        return commands;
    }

    private static List<Commands> needed(String... arguments) {
        boolean isHelp = arguments.length > 1 && arguments[0].equals("help");
        String word = arguments.length == 0 ? "" : arguments[isHelp ? 1 : 0];
        boolean isAlone = arguments.length == 0
                || arguments.length == 1
                        && List.of("help", "-h", "--help", "-V", "--version").contains(word);
        if (isAlone) return List.of();
        return Commands.of(word).map(List::of).orElseGet(() -> List.of(Commands.values()));
    }
}
