package dev.verbale.cli;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import picocli.CommandLine;
import picocli.CommandLine.IParameterExceptionHandler;
import picocli.CommandLine.MissingParameterException;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.UnmatchedArgumentException;

/** Turns what was typed and is not understood into a line that says what is wrong, one with what may be meant, and one with where to look. */
final class WrongWords implements IParameterExceptionHandler {

    /** Words for what a command does, and its kin elsewhere. */
    private static final Map<String, String> MEANT = Map.ofEntries(
            Map.entry("brief", "failures brief"),
            Map.entry("triage", "failures --by-label"),
            Map.entry("follow", "runs follow"),
            Map.entry("watch", "runs follow"),
            Map.entry("tail", "runs follow"),
            Map.entry("query", "runs query"),
            Map.entry("sql", "runs query"),
            Map.entry("sweep", "runs sweep"),
            Map.entry("clean", "runs sweep"),
            Map.entry("delete", "runs sweep"),
            Map.entry("list", "runs"),
            Map.entry("ls", "runs"),
            Map.entry("send", "hub send"),
            Map.entry("upload", "hub send"),
            Map.entry("push", "hub send"),
            Map.entry("har", "export --format har"),
            Map.entry("otlp", "export --format otlp"),
            Map.entry("junit", "export --format junit"),
            Map.entry("csv", "export --format tests-csv"),
            Map.entry("markdown", "export --format markdown"),
            Map.entry("summary", "export --format markdown"),
            Map.entry("annotations", "export --format annotations"),
            Map.entry("report", "page"),
            Map.entry("html", "page"),
            Map.entry("generate", "page"),
            Map.entry("open", "view"),
            Map.entry("serve", "view"),
            Map.entry("show", "failures"),
            Map.entry("failed", "failures"),
            Map.entry("diff", "compare"),
            Map.entry("flaky", "history flaky"),
            Map.entry("slower", "history slower"),
            Map.entry("retry", "rerun"),
            Map.entry("merge", "join"),
            Map.entry("zip", "pack"),
            Map.entry("archive", "pack"),
            Map.entry("email", "mail"),
            Map.entry("chat", "notify"),
            Map.entry("webhook", "notify"),
            Map.entry("sign", "seal"),
            Map.entry("check", "verify"),
            Map.entry("server", "hub"),
            Map.entry("version", "--version"));

    @Override
    public int handleParseException(ParameterException wrong, String[] arguments) {
        CommandLine command = wrong.getCommandLine();
        String message = String.valueOf(wrong.getMessage());
        if (wrong instanceof UnmatchedArgumentException unmatched) message = message(command, unmatched);
        else if (wrong instanceof MissingParameterException)
            message = mistyped(command, arguments).orElse(message);
        command.getErr().println("verbale: " + message);
        command.getErr().println("Help: " + help(command));
        return ExitCodes.USAGE;
    }

    private static String help(CommandLine command) {
        String name = command.getCommandSpec().qualifiedName();
        return name.equals("verbale") ? "verbale help" : name.replaceFirst(" ", " help ");
    }

    /** What is missing may be there, under a name that is nearly right. */
    private static Optional<String> mistyped(CommandLine command, String... arguments) {
        for (String one : arguments) {
            String name = one.replaceFirst("=.*", "");
            if (name.startsWith("--")
                    && name.length() > 2
                    && command.getCommandSpec().findOption(name) == null)
                return Optional.of(message(command, new UnmatchedArgumentException(command, List.of(name))));
        }
        return Optional.empty();
    }

    private static String message(CommandLine command, UnmatchedArgumentException unmatched) {
        String word = unmatched.getUnmatched().isEmpty()
                ? ""
                : unmatched.getUnmatched().get(0);
        boolean isCommand = !word.startsWith("-")
                && !command.getSubcommands().isEmpty()
                && command.getCommandSpec().positionalParameters().isEmpty();
        if (isCommand) return noCommand(command, word);
        return "'" + TerminalText.printable(word) + "' is nothing that "
                + command.getCommandSpec().qualifiedName() + " takes" + or(unmatched.getSuggestions(), "");
    }

    /** Of a word where a command was expected. */
    static String noCommand(CommandLine command, String word) {
        String name = command.getCommandSpec().qualifiedName();
        String meant = command.getParent() == null ? MEANT.get(word) : null;
        List<String> near = meant != null
                ? List.of(meant)
                : new UnmatchedArgumentException(command, List.of(word)).getSuggestions();
        return "there is no command '" + TerminalText.printable(word) + "'" + or(near, name + " ");
    }

    private static String or(List<String> near, String before) {
        if (near.isEmpty()) return ".";
        return ". Did you mean " + before + near.get(0).replaceFirst("^verbale ", "") + "?";
    }
}
