package dev.verbale.cli;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import picocli.CommandLine;
import picocli.CommandLine.Help;
import picocli.CommandLine.Model.UsageMessageSpec;

/** The commands in a help: all of Verbale's in groups, by what somebody wants, each in one line; elsewhere the first sentence of each. */
final class CommandList {

    private static final int WIDTH = 80;
    private static final int NAME = 12;

    private static final Map<String, Map<String, String>> GROUPS = groups();

    private CommandList() {}

    private static Map<String, Map<String, String>> groups() {
        Map<String, Map<String, String>> groups = new LinkedHashMap<>();
        groups.put(
                "Look at a run:",
                lines(
                        "today", "what is new, whose it is, and whether the gate is open",
                        "page", "the page of a run, which opens by double click",
                        "view", "a folder of runs in a browser, live",
                        "follow", "a run while it goes, in the terminal",
                        "failures", "what failed, by the reasons that it failed for",
                        "brief", "one failure as text, for an issue or an assistant",
                        "runs", "which runs there are in a folder"));
        groups.put(
                "Compare runs:",
                lines(
                        "compare", "what is different from an earlier run",
                        "history", "what many runs have in common: flaky, slower, since when",
                        "query", "runs and what is remembered of them, in SQL"));
        groups.put(
                "Judge, and run again:",
                lines(
                        "triage", "failures with their labels, those that nobody knows first",
                        "gate", "a run by the rules of a file, for a build to fail by",
                        "rerun", "the command that runs what failed again"));
        groups.put(
                "Hand on:",
                lines(
                        "send", "a run to the hub of a team, also while it goes",
                        "hub", "the hub itself, its tokens, its people, what it keeps",
                        "pack", "a run as one file, whole or without some of it",
                        "publish", "the page of a run in a static site with an index",
                        "mail", "what a run came to, by SMTP",
                        "notify", "the same as JSON, to a chat or a tracker",
                        "seal", "what the files of a run are, signed",
                        "verify", "what was changed in a run since it was sealed",
                        "export", "XML, Markdown, tables, a summary or a mail of a run",
                        "har", "the HTTP exchanges of a run as an archive",
                        "otlp", "the traces of a run to a collector of OpenTelemetry"));
        groups.put(
                "Gather and keep:",
                lines(
                        "join", "several runs as one: shards, machines, later attempts",
                        "import", "files that other tools wrote, as a run",
                        "sweep", "deletes runs that nobody needs any more"));
        return groups;
    }

    private static Map<String, String> lines(String... pairs) {
        Map<String, String> lines = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) lines.put(pairs[i], pairs[i + 1]);
        return lines;
    }

    /** Has all helps of {@code commands} list theirs so. */
    static void in(CommandLine commands) {
        commands.getHelpSectionMap().put(UsageMessageSpec.SECTION_KEY_COMMAND_LIST_HEADING, help -> "");
        commands.getHelpSectionMap().put(UsageMessageSpec.SECTION_KEY_COMMAND_LIST, help -> grouped());
        for (CommandLine command : commands.getSubcommands().values())
            command.getHelpSectionMap().put(UsageMessageSpec.SECTION_KEY_COMMAND_LIST, CommandList::sentences);
    }

    private static String grouped() {
        var text = new StringBuilder();
        GROUPS.forEach((title, lines) -> {
            text.append('\n').append(title).append('\n');
            lines.forEach((name, line) -> text.append(line(name, line)));
        });
        return text.append("\nOf each: verbale help COMMAND\n").toString();
    }

    private static String sentences(Help help) {
        var text = new StringBuilder();
        help.subcommands().forEach((name, one) -> {
            String all = String.join(" ", one.commandSpec().usageMessage().description());
            List<String> lines =
                    wrapped(all.replaceFirst("(?s)([.;])\\s.*", "$1").replaceFirst(";$", "."));
            text.append(line(name, lines.get(0)));
            for (String more : lines.subList(1, lines.size())) text.append(line("", more));
        });
        return text.toString();
    }

    private static String line(String name, String text) {
        return String.format("  %-" + (NAME - 2) + "s%s%n", name, text);
    }

    private static List<String> wrapped(String text) {
        List<String> lines = new ArrayList<>();
        var line = new StringBuilder();
        for (String word : text.split(" ")) {
            if (!line.isEmpty() && NAME + line.length() + 1 + word.length() > WIDTH) {
                lines.add(line.toString());
                line.setLength(0);
            }
            line.append(line.isEmpty() ? "" : " ").append(word);
        }
        lines.add(line.toString());
        return lines;
    }
}
