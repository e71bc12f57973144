package dev.verbale.cli;

import dev.verbale.results.Run;
import dev.verbale.results.TestKeeper;
import dev.verbale.rules.Today;
import java.io.PrintWriter;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Shows what failed. */
@Command(
        name = "failures",
        description = "Shows what failed in a run, by the reasons that it failed for.",
        mixinStandardHelpOptions = true,
        footerHeading = "%nExamples:%n",
        footer = {
            "  verbale failures",
            "  verbale failures --all                 each test, with its whole message",
            "  verbale brief ID                       all that is known of one reason"
        })
final class FailuresCommand implements Callable<Integer> {

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(names = "--all", description = "Each test with its whole message and its attachments.")
    private boolean all;

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Run read = run.read(TestKeeper.failuresAndLaterAttempts());
        PrintWriter out = spec.commandLine().getOut();
        var terminal = new TerminalText(Ansi.AUTO);
        if (all) new FailureText(read, rules.labels(read), terminal).print(out);
        else {
            Today today = history.today(
                    read,
                    run.rootOf(read),
                    rules.read(),
                    null,
                    spec.commandLine().getErr());
            new ReasonsText(out, terminal).print(today);
        }
        if (!read.problems().isEmpty()) spec.commandLine().getErr().println(ProblemList.of(read));
        return ExitCodes.DONE;
    }
}
