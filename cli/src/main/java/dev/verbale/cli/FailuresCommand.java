package dev.verbale.cli;

import dev.verbale.results.Run;
import dev.verbale.results.TestKeeper;
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
        description = "Shows what failed in a run, and where its attachments are.",
        mixinStandardHelpOptions = true,
        footerHeading = "%nExamples:%n",
        footer = {"  verbale failures", "  verbale failures target/verbale/2026-11-24_103107_k3f9"})
final class FailuresCommand implements Callable<Integer> {

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(
            names = "--all",
            description = {
                "Each test with its whole message. Without it, more than",
                "20 are shown by what they have in common, and long",
                "messages are cut."
            })
    private boolean all;

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        Run read = run.read(TestKeeper.FAILURES);
        PrintWriter out = spec.commandLine().getOut();
        new FailureText(read, rules.labels(read), Ansi.AUTO, all).print(out);
        if (!read.problems().isEmpty()) spec.commandLine().getErr().println(ProblemList.of(read));
        return ExitCodes.DONE;
    }
}
