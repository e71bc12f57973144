package dev.verbale.cli;

import dev.verbale.changes.AffectedTests;
import dev.verbale.changes.ChangedFiles;
import dev.verbale.history.BudgetPlan;
import dev.verbale.history.History;
import dev.verbale.history.ShardPlan;
import dev.verbale.results.DurationText;
import dev.verbale.results.Run;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.TestResult;
import dev.verbale.results.reason.FailureReason;
import dev.verbale.results.selection.ShellWord;
import dev.verbale.results.selection.TestSelection;
import dev.verbale.rules.Triage;
import dev.verbale.vocabulary.Outcome;
import java.io.File;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Some tests once more. */
@Command(
        name = "rerun",
        description = "Prints the command that runs some tests of a run again, to be pasted into a shell as it is.",
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale rerun   # what needs attention, by Maven",
            "  verbale rerun --flaky --for gradle",
            "  verbale rerun --reason 1ff7bfbedb05 --run",
            "  verbale rerun --shards 8 --shard 3   # of eight machines, the third"
        })
final class RerunCommand implements Callable<Integer> {

    /** Longer commands do not start everywhere; the limit of Windows is 32,767 and that of a Linux argument 131,072. */
    private static final int LONGEST = 30_000;

    private static final int MAX_REASONS = 3;

    /** Whose words. */
    enum Runner {
        MAVEN,
        GRADLE,
        TESTNG,
        CUCUMBER,
        JUNIT;

        /** As it is typed. */
        @Override
        public String toString() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(names = "--failed", description = "Tests that need attention, as without a choice")
    private boolean failed;

    @Option(names = "--flaky", description = "Tests that passed only on a later attempt")
    private boolean flaky;

    @Option(names = "--not-run", description = "Tests that were skipped, aborted or not finished")
    private boolean notRun;

    @Option(names = "--reason", paramLabel = "ID", description = "Tests that failed for this reason")
    private @Nullable String reason;

    @Option(names = "--label", paramLabel = "LABEL", description = "Tests with this label, by the rules")
    private @Nullable String label;

    @Option(
            names = "--changed-since",
            paramLabel = "COMMIT",
            description = {
                "Tests that changes since COMMIT can affect",
                "By what the compiled classes of this folder refer to. Asks no run."
            })
    private @Nullable String changedSince;

    @Option(
            names = "--ignore",
            paramLabel = "FILES",
            description = {"Changed files that affect no test, as docs/**", "May be repeated."})
    private List<String> ignored = new ArrayList<>();

    @Mixin
    private final PlanOptions plan = new PlanOptions();

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Option(
            names = "--for",
            paramLabel = "RUNNER",
            defaultValue = "maven",
            description = "${COMPLETION-CANDIDATES} (${DEFAULT-VALUE})")
    private Runner runner = Runner.MAVEN;

    @Option(names = "--run", description = "Starts it too, in this folder; only for maven")
    private boolean start;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (start && runner != Runner.MAVEN)
            throw new ParameterException(spec.commandLine(), "--run starts Maven only; leave it out, or --for");
        plan.check(start);
        if (plan.isAsked()) return planned();
        if (changedSince != null) return affected(changedSince);
        if (!ignored.isEmpty())
            throw new ParameterException(spec.commandLine(), "--ignore is of use only beside --changed-since");
        Run read = run.read(TestKeeper.FAILURES);
        Map<String, TestResult> chosen = chosen(read);
        PrintWriter err = spec.commandLine().getErr();
        if (chosen.isEmpty()) {
            err.println("verbale: there is nothing to run: no such test is in " + read.name());
            return ExitCodes.DONE;
        }
        TestSelection selection = TestSelection.of(chosen.values());
        if (!selection.unknown().isEmpty())
            err.println("verbale: "
                    + (selection.unknown().size() == 1
                            ? "1 test has"
                            : selection.unknown().size() + " tests have")
                    + " neither class nor line, and can only be run as a whole: "
                    + TerminalText.printable(selection.unknown().get(0)));
        return printed(parts(read, chosen.values()));
    }

    /**
     * What one command can name: a class whose name two modules have is told by its module, and all others by their names alone.
     *
     * @param module empty where names are enough
     */
    private record Part(String module, TestSelection selection) {}

    private static List<Part> parts(Run read, Collection<TestResult> chosen) {
        Map<String, Set<String>> modules = new HashMap<>();
        for (TestResult test : read.tests())
            if (test.className() != null)
                modules.computeIfAbsent(test.className(), type -> new HashSet<>())
                        .add(test.module());
        Map<String, List<TestResult>> byModule = new TreeMap<>();
        for (TestResult test : chosen) {
            boolean isOneOfSeveral = test.className() != null
                    && modules.getOrDefault(test.className(), Set.of()).size() > 1;
            byModule.computeIfAbsent(isOneOfSeveral ? test.module() : "", module -> new ArrayList<>())
                    .add(test);
        }
        List<Part> parts = new ArrayList<>();
        byModule.forEach((module, tests) -> parts.add(new Part(module, TestSelection.of(tests))));
        return parts;
    }

    /** By what is remembered: what fits into the time, for each machine. */
    private int planned() throws Exception {
        refuseChoices("--shards and --within");
        AffectedTests tests =
                changedSince == null ? AffectedTests.all(Path.of("").toAbsolutePath()) : found(changedSince);
        sayWhy(tests);
        PrintWriter err = spec.commandLine().getErr();
        History remembered = history.read(err);
        Collection<String> classes = tests.classes();
        if (plan.budget().isPresent()) {
            BudgetPlan chosen = BudgetPlan.of(remembered, classes, plan.budget().get());
            err.println("verbale: " + chosen.classes().size() + " of " + classes.size() + " classes fit, with "
                    + Math.round(chosen.share() * 100) + " % of the failures that are to be expected");
            classes = chosen.classes();
        }
        int machines = plan.machines();
        ShardPlan divided = ShardPlan.of(remembered, classes, machines);
        err.println("verbale: " + machines + (machines == 1 ? " machine ends" : " machines end") + " after "
                + DurationText.of(divided.expected()) + ", by what "
                + classes.size()
                + " classes took"
                + (divided.unknown().isEmpty()
                        ? ""
                        : "; of " + divided.unknown().size() + " of them nothing is remembered"));
        int worst = ExitCodes.DONE;
        for (int i = 1; i <= machines; i++)
            if (plan.isWanted(i))
                worst = Math.max(worst, printed(divided.shards().get(i - 1), i, Math.min(machines, classes.size())));
        return worst;
    }

    /** @param machines how many have something to run: no other shard is to be missed */
    private int printed(ShardPlan.Shard part, int number, int machines) throws Exception {
        if (part.classes().isEmpty()) {
            spec.commandLine().getErr().println("verbale: machine " + number + " has nothing to run");
            return ExitCodes.DONE;
        }
        Map<String, Set<String>> methods = new TreeMap<>();
        for (String one : part.classes()) methods.put(one, Set.of());
        List<String> facts = new ArrayList<>();
        if (plan.isDivided()) facts.add("-Dverbale.fact.shard=" + number + " of " + machines);
        String words = plan.words(changedSince);
        if (!words.isEmpty()) facts.add("-Dverbale.fact.selection=" + words);
        List<List<String>> commands = new ArrayList<>();
        for (List<String> one : commands(new Part("", new TestSelection(methods, Map.of(), List.of())))) {
            List<String> command = new ArrayList<>(one);
            if (!command.get(0).equals("gradle"))
                command.addAll(command.get(0).equals("java") ? 1 : command.size(), facts);
            commands.add(command);
        }
        return printedCommands(commands);
    }

    private void refuseChoices(String option) {
        if (failed || flaky || notRun || reason != null || label != null)
            throw new ParameterException(
                    spec.commandLine(), option + " asks no run, and goes with none of the other choices");
    }

    /** The files because of which every test has to run. */
    private void sayWhy(AffectedTests affected) {
        PrintWriter err = spec.commandLine().getErr();
        int shown = Math.min(MAX_REASONS, affected.because().size());
        for (String why : affected.because().subList(0, shown)) err.println("verbale: " + TerminalText.printable(why));
        if (affected.because().size() > shown)
            err.println("verbale: and " + (affected.because().size() - shown) + " more such files");
    }

    private AffectedTests found(String commit) throws Exception {
        Path here = Path.of("").toAbsolutePath();
        return AffectedTests.of(here, ChangedFiles.since(here, commit), ignored);
    }

    private int affected(String commit) throws Exception {
        refuseChoices("--changed-since");
        AffectedTests affected = found(commit);
        sayWhy(affected);
        PrintWriter err = spec.commandLine().getErr();
        String classes = affected.outOf() == 1 ? " class with tests" : " classes with tests";
        err.println("verbale: "
                + (affected.everything() ? "so all " : affected.classes().size() + " of ") + affected.outOf() + classes
                + " can be affected");
        if (affected.classes().isEmpty()) return ExitCodes.DONE;
        if (affected.everything() && runner == Runner.MAVEN) return printedCommands(List.of(List.of("mvn", "verify")));
        if (affected.everything() && runner == Runner.GRADLE)
            return printedCommands(List.of(List.of("gradle", "test")));
        return printed(List.of(new Part("", affected.selection())));
    }

    private int printed(List<Part> parts) throws Exception {
        PrintWriter err = spec.commandLine().getErr();
        List<List<String>> commands = commands(parts);
        if (commands.stream().mapToInt(RerunCommand::length).max().orElse(0) > LONGEST) {
            err.println(
                    "verbale: the command would be too long for a shell, and names whole classes instead of methods.");
            commands = commands(parts.stream()
                    .map(part -> new Part(part.module(), part.selection().byClass()))
                    .toList());
        }
        return printedCommands(commands);
    }

    private int printedCommands(List<List<String>> commands) throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        for (List<String> command : commands)
            out.println(command.stream().map(ShellWord::posix).collect(Collectors.joining(" ")));
        if (!start) return ExitCodes.DONE;
        out.flush();
        int worst = 0;
        for (List<String> command : commands) worst = Math.max(worst, started(command));
        return worst;
    }

    private Map<String, TestResult> chosen(Run read) throws Exception {
        Map<String, TestResult> chosen = new LinkedHashMap<>();
        boolean isChoice = flaky || notRun || reason != null || label != null;
        for (TestResult test : read.tests()) {
            if (test.superseded()) continue;
            if ((failed || !isChoice) && test.outcome().needsAttention()) chosen.put(test.key(), test);
            if (flaky && test.recovered()) chosen.put(test.key(), test);
            if (notRun && isNotRun(test.outcome())) chosen.put(test.key(), test);
        }
        if (reason != null) {
            List<FailureReason> reasons = FailureReason.of(read);
            FailureReason wanted = reasons.stream()
                    .filter(one -> one.id().startsWith(reason))
                    .findFirst()
                    .orElseThrow(() -> new ParameterException(
                            spec.commandLine(),
                            "no reason of " + read.name() + " has the id " + reason + ". Known are "
                                    + reasons.stream().map(FailureReason::id).toList()));
            for (TestResult test : wanted.tests()) chosen.put(test.key(), test);
        }
        if (label != null)
            for (Triage.Labelled one : Triage.of(read, rules.read().triage(), LocalDate.now(ZoneId.systemDefault()))
                    .failures())
                if (one.rule().isPresent() && one.rule().get().label().equals(label))
                    chosen.put(one.test().key(), one.test());
        return chosen;
    }

    private static boolean isNotRun(Outcome outcome) {
        return outcome.equals(Outcome.SKIPPED) || outcome.equals(Outcome.ABORTED) || outcome.equals(Outcome.UNFINISHED);
    }

    private List<List<String>> commands(List<Part> parts) {
        List<List<String>> commands = new ArrayList<>();
        for (Part part : parts) commands.addAll(commands(part));
        return commands;
    }

    private List<List<String>> commands(Part part) {
        TestSelection selection = part.selection();
        List<List<String>> commands = new ArrayList<>();
        boolean classes = !selection.methods().isEmpty();
        boolean scenarios = !selection.scenarios().isEmpty();
        switch (runner) {
            case MAVEN -> {
                // One property for each plugin: where only one of them runs tests, the other's says nothing.
                if (classes)
                    commands.add(maven(
                            part,
                            "-Dtest=" + selection.forSurefire(),
                            "-Dit.test=" + selection.forSurefire(),
                            "-Dsurefire.failIfNoSpecifiedTests=false",
                            "-Dfailsafe.failIfNoSpecifiedTests=false"));
                if (scenarios)
                    commands.add(maven(part, "-Dcucumber.features=" + String.join(",", selection.forCucumber())));
            }
            case GRADLE -> {
                List<String> command = new ArrayList<>(List.of(
                        "gradle",
                        part.module().isEmpty() ? "test" : ":" + part.module().replace('/', ':') + ":test"));
                for (String one : selection.forGradle()) command.addAll(List.of("--tests", one));
                if (classes) commands.add(command);
            }
            case TESTNG -> {
                if (classes)
                    commands.add(
                            List.of("java", "org.testng.TestNG", "-methods", String.join(",", selection.forTestNG())));
            }
            case CUCUMBER -> {
                List<String> command = new ArrayList<>(List.of("java", "io.cucumber.core.cli.Main"));
                command.addAll(selection.forCucumber());
                if (scenarios) commands.add(command);
            }
            case JUNIT -> {
                List<String> command =
                        new ArrayList<>(List.of("java", "org.junit.platform.console.ConsoleLauncher", "execute"));
                command.addAll(selection.forJUnitConsole());
                if (classes || scenarios) commands.add(command);
            }
        }
        return commands;
    }

    private static List<String> maven(Part part, String... arguments) {
        List<String> command = new ArrayList<>(List.of("mvn", "verify"));
        if (!part.module().isEmpty()) command.addAll(List.of("-pl", part.module()));
        command.addAll(List.of(arguments));
        return command;
    }

    private static int length(List<String> command) {
        return command.stream().mapToInt(word -> word.length() + 3).sum();
    }

    /** By its words, and by no shell: nothing in them means anything. */
    private static int started(List<String> command) throws IOException, InterruptedException {
        List<String> words = new ArrayList<>(command);
        if (File.separatorChar == '\\') words.set(0, words.get(0) + ".cmd");
        return new ProcessBuilder(words).inheritIO().start().waitFor();
    }
}
