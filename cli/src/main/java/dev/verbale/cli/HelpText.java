package dev.verbale.cli;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import picocli.CommandLine;
import picocli.CommandLine.Help;
import picocli.CommandLine.IHelpSectionRenderer;
import picocli.CommandLine.Model.ArgSpec;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/**
 * What a help shows, which is never more than a screen: an example first, then what the command does, then one line for each word.
 * Of a description only the first part stands there; {@code docs/commands.md} has the rest.
 */
final class HelpText {

    private static final int WIDTH = 80;
    private static final int WIDEST_WORD = 30;

    private HelpText() {}

    /** Has all helps of {@code commands} look so. */
    static void in(CommandLine commands) {
        Map<String, IHelpSectionRenderer> sections = new LinkedHashMap<>();
        sections.put("help", HelpText::text);
        commands.setHelpSectionMap(sections);
        commands.setHelpSectionKeys(List.of("help"));
    }

    private static String text(Help help) {
        CommandSpec spec = help.commandSpec();
        return String.join("\n", spec.parent() == null ? ofAll() : of(spec)) + "\n";
    }

    private static List<String> ofAll() {
        List<String> lines = new ArrayList<>();
        lines.add("  verbale failures   # what failed in the newest run, and why");
        lines.add("");
        lines.addAll(Commands.lines());
        lines.add("");
        lines.add("Of each: verbale help COMMAND. Exit codes and variables: docs/commands.md");
        return lines;
    }

    private static List<String> of(CommandSpec spec) {
        List<String> lines = new ArrayList<>(List.of(spec.usageMessage().footer()));
        lines.add("");
        lines.addAll(wrapped(first(spec.usageMessage().description())));
        lines.add("");
        lines.addAll(wrapped("Usage: " + usage(spec)));
        Map<String, String> rows = new LinkedHashMap<>();
        boolean hasLook = !spec.name().equals("page") && spec.findOption("--accent") != null;
        for (ArgSpec one : arguments(spec)) {
            if (!hasLook || !PageLookOption.has(one)) rows.put(word(one), first(one.description()));
            else rows.putIfAbsent("--title=TEXT ...", "And the rest of a page's look: verbale help page");
        }
        spec.subcommands().forEach((word, one) -> {
            CommandSpec sub = one.getCommandSpec();
            if (!sub.usageMessage().hidden())
                rows.put(word, first(sub.usageMessage().description()));
        });
        int widest = rows.keySet().stream().mapToInt(String::length).max().orElse(0);
        int column = Math.min(widest, WIDEST_WORD) + 4;
        rows.forEach((word, line) -> {
            List<String> parts = wrapped(line, WIDTH - column);
            lines.add(String.format("  %-" + (column - 2) + "s%s", word, parts.get(0)));
            for (String more : parts.subList(1, parts.size())) lines.add(" ".repeat(column) + more);
        });
        return lines;
    }

    /** What it takes, the parameters first, without what every command takes. */
    static List<ArgSpec> arguments(CommandSpec spec) {
        List<ArgSpec> all = new ArrayList<>(spec.positionalParameters());
        for (OptionSpec one : spec.options()) if (!one.usageHelp() && !one.versionHelp()) all.add(one);
        return all;
    }

    static String usage(CommandSpec spec) {
        var usage = new StringBuilder(spec.qualifiedName());
        boolean hasMore = false;
        for (OptionSpec one : spec.options()) {
            if (one.required()) usage.append(' ').append(word(one));
            else hasMore |= !one.usageHelp() && !one.versionHelp();
        }
        if (hasMore) usage.append(" [OPTION]...");
        for (PositionalParamSpec one : spec.positionalParameters()) {
            String word = one.arity().min() == 0 ? "[" + one.paramLabel() + "]" : one.paramLabel();
            usage.append(' ').append(word).append(one.arity().max() > 1 ? "..." : "");
        }
        if (!spec.subcommands().isEmpty()) usage.append(usage.indexOf(" [") < 0 ? " COMMAND" : " | COMMAND");
        return usage.toString();
    }

    /** As it is typed. */
    static String word(ArgSpec one) {
        if (!(one instanceof OptionSpec option)) return one.paramLabel();
        return option.longestName() + (option.arity().max() == 0 ? "" : "=" + option.paramLabel());
    }

    private static String first(String[] description) {
        return description.length == 0 ? "" : description[0];
    }

    private static List<String> wrapped(String text) {
        return wrapped(text, WIDTH);
    }

    private static List<String> wrapped(String text, int width) {
        List<String> lines = new ArrayList<>();
        var line = new StringBuilder();
        for (String word : text.split(" ")) {
            if (!line.isEmpty() && line.length() + 1 + word.length() > width) {
                lines.add(line.toString());
                line.setLength(0);
            }
            line.append(line.isEmpty() ? "" : " ").append(word);
        }
        lines.add(line.toString());
        return lines;
    }
}
