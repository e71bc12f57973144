package dev.verbale.cli;

import dev.verbale.history.History;
import dev.verbale.history.compare.Comparison;
import dev.verbale.history.digest.RunDigest;
import dev.verbale.results.Run;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.summary.Headline;
import dev.verbale.rules.Rules;
import dev.verbale.rules.Triage;
import dev.verbale.rules.Verdict;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.IOException;
import java.io.PrintWriter;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Optional;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Help.Ansi;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Spec;

/** Whether a run is good enough. */
@Command(
        name = "gate",
        description = {
            "Judges a run by the rules of a file, for a build to fail by: exit code 5 where the gate is closed.",
            "Without rules no test may need attention."
        },
        mixinStandardHelpOptions = true,
        footer = {"  verbale gate", "  verbale gate --rules verbale-rules.yaml --baseline branch:main"})
final class GateCommand implements Callable<Integer> {

    @Mixin
    private final RunArgument run = new RunArgument();

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Mixin
    private final BaselineOption baseline = new BaselineOption();

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Rules read = read();
        PrintWriter out = spec.commandLine().getOut();
        var text = new TerminalText(Ansi.AUTO);
        Run judged = run.read(TestKeeper.FAILURES);
        Optional<Comparison> comparison = read.gate().needsBaseline() ? comparison(judged) : Optional.empty();
        Verdict verdict = Verdict.of(
                read.gate(),
                judged,
                Triage.of(judged, read.triage(), LocalDate.now(ZoneId.systemDefault())),
                comparison.orElse(null));
        out.println(verdict.passes() ? text.good("The gate is open.") : text.bad("The gate is closed."));
        verdict.reasons().forEach(reason -> out.println("  " + reason));
        verdict.exceptions().forEach(exception -> out.println("  " + text.dim(TerminalText.printable(exception))));
        comparison.ifPresent(with -> out.println(
                text.dim("Beside " + TerminalText.printable(with.baseline().text()) + ": " + with.sentence())));
        if (read.gate().needsBaseline() && comparison.isEmpty())
            out.println(text.dim("There is no baseline: nobody knows what is slower, and what vanished."));
        out.println(text.dim(Headline.of(judged)));
        if (!judged.problems().isEmpty()) spec.commandLine().getErr().println(ProblemList.of(judged));
        return verdict.passes() ? ExitCodes.DONE : ExitCodes.GATE_CLOSED;
    }

    /** All of them: what somebody knows may be what closes the gate. */
    private Rules read() throws YamlFormatException, IOException, FailureMessages.NotWritten {
        Rules ofFile = rules.ofFile();
        try {
            return rules.withHub(ofFile);
        } catch (IOException away) {
            throw new FailureMessages.NotWritten("the gate was not judged", away);
        }
    }

    private Optional<Comparison> comparison(Run judged) throws IOException {
        History remembered = history.read(spec.commandLine().getErr());
        return baseline.find(judged, RunArgument.around(judged), history.folder(), remembered)
                .map(before -> Comparison.of(before, RunDigest.of(judged), remembered));
    }
}
