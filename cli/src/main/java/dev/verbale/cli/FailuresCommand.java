package dev.verbale.cli;

import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.rules.Today;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Shows what failed. */
@Command(
        name = "failures",
        subcommands = BriefCommand.class,
        description = "Shows what failed in a run, by the reasons that it failed for.",
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale failures",
            "  verbale failures --all   # each test, with its whole message",
            "  verbale failures brief 3f09a1c2   # all that is known of one reason",
            "  verbale failures --by-label --rules new.yaml target/verbale/*"
        })
final class FailuresCommand implements Callable<Integer> {

    @Parameters(
            arity = "0..*",
            paramLabel = "RUN",
            description = {
                "The run; left out, the newest in target/verbale",
                "A folder, a name in target/verbale, a pack (.zip), a folder that holds runs, or a project. Several with "
                        + "--by-label."
            })
    private List<Path> runs = new ArrayList<>();

    @Option(names = "--all", description = "Each test with its whole message and attachments")
    private boolean all;

    @Option(
            names = "--by-label",
            description = {
                "By the labels of the rules, what none knows first",
                "Of several runs it shows what each rule would have said of them."
            })
    private boolean isByLabel;

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        var terminal = new TerminalText(Ansi.AUTO);
        if (runs.size() > 1) {
            if (!isByLabel)
                throw new ParameterException(spec.commandLine(), "Name one run, or several with --by-label");
            new LabelText(out, terminal, rules.read()).print(runs);
            return ExitCodes.DONE;
        }
        Path named = runs.isEmpty() ? RunArgument.root() : RunArgument.found(runs.get(0));
        Run read = RunReader.read(named, TestKeeper.failuresAndLaterAttempts());
        if (isByLabel) new LabelText(out, terminal, rules.read()).print(read);
        else if (all) new FailureText(read, rules.labels(read), terminal).print(out);
        else {
            Today today = history.today(
                    read,
                    RunArgument.around(read),
                    rules.read(),
                    null,
                    spec.commandLine().getErr());
            new ReasonsText(out, terminal).print(today);
        }
        if (!read.problems().isEmpty()) spec.commandLine().getErr().println(ProblemList.of(read));
        return ExitCodes.DONE;
    }
}
