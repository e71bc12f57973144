package dev.verbale.cli;

import dev.verbale.rules.yaml.YamlFormatException;
import dev.verbale.rules.yaml.YamlPart;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;

/**
 * What is to be done at the end of a job, by a file: each part of it is a command with its options, under the names that they have on
 * the command line. The order is always the same, whatever order the file has.
 */
final class CiPlan {

    /** Where nobody names one. */
    static final String DEFAULT = "verbale-ci.yaml";

    static final String DOCUMENT = "docs/ci.md";

    private static final String RUN = "run";
    private static final int DEEPEST = 12;
    private static final Pattern VARIABLE = Pattern.compile("\\$\\{([A-Za-z_][A-Za-z0-9_]*)}");

    /** A part of the file, and the command that it is. */
    enum Step {
        JOIN("join", "join"),
        REMEMBER("remember", "history add"),
        SEAL("seal", "seal"),
        PAGE("page", "page"),
        EXPORT("export", "export"),
        PACK("pack", "pack"),
        PUBLISH("publish", "publish"),
        SEND("send", "hub send"),
        MAIL("mail", "mail"),
        NOTIFY("notify", "notify"),
        GATE("gate", "gate");

        private final String word;
        private final String command;

        Step(String word, String command) {
            this.word = word;
            this.command = command;
        }

        private List<String> command() {
            return List.of(command.split(" "));
        }

        String word() {
            return word;
        }
    }

    /**
     * One command.
     *
     * @param arguments as they are typed behind {@code verbale}, without the run
     */
    record Planned(Step step, List<String> arguments) {
        Planned {
            arguments = List.copyOf(arguments);
        }
    }

    private final List<Planned> steps;
    private final @Nullable Path run;

    private CiPlan(List<Planned> steps, @Nullable Path run) {
        this.steps = steps;
        this.run = run;
    }

    /** In the order in which they are done. */
    List<Planned> steps() {
        return Collections.unmodifiableList(steps);
    }

    /** Which run it is all about: the joined one, the one that the file names, or null for the newest. */
    @Nullable
    Path run() {
        return run;
    }

    /** Of who has written no file: the page and the gate. */
    static CiPlan usual() {
        return new CiPlan(
                List.of(new Planned(Step.PAGE, List.of("page")), new Planned(Step.GATE, List.of("gate"))), null);
    }

    /**
     * Reads one from a file.
     *
     * @param environment what {@code ${NAME}} is filled in from
     * @throws YamlFormatException where it says something that no command takes; with line and column
     */
    static CiPlan read(Path file, Map<String, String> environment) throws YamlFormatException, IOException {
        Optional<YamlPart> root = YamlPart.read(file, DOCUMENT);
        if (root.isEmpty()) return usual();
        List<String> known = new ArrayList<>(List.of(RUN));
        for (Step step : Step.values()) known.add(step.word());
        Map<String, YamlPart> parts = root.get().mapping("the file", known);
        YamlPart named = parts.get(RUN);
        Path run = named == null ? null : Path.of(filled(named, named.text("a run"), environment));
        List<Planned> steps = new ArrayList<>();
        for (Step step : Step.values()) {
            YamlPart part = parts.get(step.word());
            if (part == null) continue;
            if (step == Step.JOIN && named != null)
                throw named.bad("there is a 'run' beside a 'join'", "Leave one out: what was joined is the run");
            if (step == Step.JOIN && part.parts().size() > 1)
                throw part.bad("there are two joins", "Write one, with all 'runs': what was joined is the run");
            for (YamlPart one : part.parts()) arguments(step, one, environment).ifPresent(steps::add);
        }
        if (steps.isEmpty()) throw root.get().bad("nothing is to be done", "Name one of " + known);
        for (Planned one : steps) if (one.step() == Step.JOIN) run = output(one);
        return new CiPlan(steps, run);
    }

    private static @Nullable Path output(Planned join) {
        for (String argument : join.arguments())
            if (argument.startsWith("--output=")) return Path.of(argument.substring("--output=".length()));
        return null;
    }

    /** Empty where it says no. */
    private static Optional<Planned> arguments(Step step, YamlPart part, Map<String, String> environment)
            throws YamlFormatException, IOException {
        List<String> arguments = new ArrayList<>(step.command());
        if (!part.isMapping()) {
            String word = part.text("'" + step.word() + "'");
            if (isNo(word)) return Optional.empty();
            if (!isYes(word) && !word.isEmpty())
                throw part.bad(
                        "'" + step.word() + ": " + word + "' says neither yes nor no",
                        "Write yes, or the options of 'verbale " + step.command + "'");
        } else {
            CommandSpec command = command(step);
            for (var option :
                    part.mapping("'" + step.word() + "'", names(step, command)).entrySet()) {
                if (option.getKey().equals("runs")) continue;
                OptionSpec spec = command.findOption("--" + option.getKey());
                for (YamlPart value : option.getValue().parts()) {
                    String text = filled(value, value.text("'" + option.getKey() + "'"), environment);
                    if (spec.arity().max() > 0) arguments.add("--" + option.getKey() + "=" + text);
                    else if (isYes(text)) arguments.add("--" + option.getKey());
                    else if (!isNo(text)) throw value.bad("'" + text + "' is neither yes nor no", "Write one of them");
                }
            }
            YamlPart runs =
                    part.mapping("'" + step.word() + "'", names(step, command)).get("runs");
            if (runs != null) for (YamlPart one : runs.parts()) arguments.addAll(runs(one, environment));
        }
        check(step, part, arguments);
        return Optional.of(new Planned(step, arguments));
    }

    private static CommandSpec command(Step step) {
        CommandLine at =
                Main.commandLine(Main.NOWHERE, Main.NOWHERE, step.command().toArray(String[]::new));
        for (String word : step.command())
            at = Objects.requireNonNull(at.getSubcommands().get(word));
        return at.getCommandSpec();
    }

    private static List<String> names(Step step, CommandSpec command) {
        List<String> names = new ArrayList<>();
        if (step == Step.JOIN) names.add("runs");
        for (OptionSpec one : command.options())
            if (!one.usageHelp() && !one.versionHelp())
                names.add(one.longestName().substring(2));
        return names;
    }

    /** What the command itself says of them, at the line of the file. */
    private static void check(Step step, YamlPart part, List<String> arguments) throws YamlFormatException {
        try {
            Main.commandLine(Main.NOWHERE, Main.NOWHERE, arguments.toArray(String[]::new))
                    .parseArgs(arguments.toArray(String[]::new));
        } catch (CommandLine.ParameterException wrong) {
            String why = String.valueOf(wrong.getMessage()).replaceFirst("[.]$", "");
            throw part.bad("'" + step.word() + "': " + why, "See 'verbale help " + step.command + "'");
        }
    }

    /** Those that are there; a pattern that nothing is like stays, and the command says that there is none. */
    private static List<String> runs(YamlPart part, Map<String, String> environment)
            throws YamlFormatException, IOException {
        String pattern = filled(part, part.text("a run"), environment);
        if (!pattern.matches(".*[*?{\\[].*")) return List.of(pattern);
        PathMatcher matcher = FileSystems.getDefault().getPathMatcher("glob:" + pattern);
        try (Stream<Path> all = Files.walk(Path.of(""), DEEPEST)) {
            List<String> found =
                    all.filter(matcher::matches).map(Path::toString).sorted().toList();
            return found.isEmpty() ? List.of(pattern) : found;
        } catch (UncheckedIOException unreadable) {
            throw unreadable.getCause();
        }
    }

    private static String filled(YamlPart part, String text, Map<String, String> environment)
            throws YamlFormatException {
        Matcher variable = VARIABLE.matcher(text);
        var filled = new StringBuilder();
        while (variable.find()) {
            String value = environment.get(variable.group(1));
            if (value == null)
                throw part.bad(
                        "the variable " + variable.group(1) + " is not set",
                        "Set it in the job, or write the value itself");
            variable.appendReplacement(filled, Matcher.quoteReplacement(value));
        }
        return variable.appendTail(filled).toString();
    }

    private static boolean isYes(String word) {
        return List.of("yes", "true", "on").contains(word);
    }

    private static boolean isNo(String word) {
        return List.of("no", "false", "off").contains(word);
    }
}
