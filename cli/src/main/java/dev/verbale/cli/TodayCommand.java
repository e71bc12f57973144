package dev.verbale.cli;

import dev.verbale.results.Run;
import dev.verbale.results.TestKeeper;
import dev.verbale.rules.Rules;
import dev.verbale.rules.Today;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Where a suite stands, on one screen. */
@Command(
        name = "today",
        description = {
            "Shows on one screen what is new since a run and whose it is, what is known, what is flaky, and whether the gate is open.",
            "Exit code 5 where it is closed."
        },
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale today   # since the newest complete run before",
            "  verbale today --since friday   # since the last run of Friday"
        })
final class TodayCommand implements Callable<Integer> {

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(
            names = "--since",
            paramLabel = "WHEN",
            description = {
                "Since when: friday, 2026-11-27, v2.3, last-good",
                "A day (friday, yesterday, 2026-11-27), a moment, a tag or commit of git's, a run's folder or name, last-good, branch:NAME. Left out: the newest complete run before."
            })
    private @Nullable String since;

    @Option(
            names = "--limit",
            paramLabel = "N",
            defaultValue = "5",
            description = "How many of each at the most (${DEFAULT-VALUE})")
    private int limit;

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (limit < 1) throw new ParameterException(spec.commandLine(), "--limit takes a number from 1, not " + limit);
        Rules read = rules.read();
        Run judged = run.read(TestKeeper.failuresAndLaterAttempts());
        Today today = history.today(
                judged,
                RunArgument.around(judged),
                read,
                since,
                spec.commandLine().getErr());
        new TodayText(spec.commandLine().getOut(), new TerminalText(Ansi.AUTO), limit).print(today);
        if (!judged.problems().isEmpty()) spec.commandLine().getErr().println(ProblemList.of(judged));
        return today.verdict().passes() ? ExitCodes.DONE : ExitCodes.GATE_CLOSED;
    }
}
