package dev.verbale.cli;

import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.join.RunJoiner;
import dev.verbale.results.summary.Headline;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** One run of several. */
@Command(
        name = "join",
        description = {
            "Makes one run of several: shards, machines, modules, later attempts.",
            "They are copied, and may be joined again, with more and in any order. The same test in two of them is one test."
        },
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale join shard-*/target/verbale --output target/verbale/tonight",
            "  verbale page target/verbale/tonight"
        })
final class JoinCommand implements Callable<Integer> {

    @Parameters(arity = "1..*", paramLabel = "RUN", description = "Runs; of a folder that holds runs, the newest")
    private List<Path> runs = new ArrayList<>();

    @Option(
            names = "--output",
            paramLabel = "FOLDER",
            required = true,
            description = {
                "The joined run's folder, new or joined before",
                "A new one, an empty one, or a joined run to add to."
            })
    private Path output = Path.of("");

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        PrintWriter err = spec.commandLine().getErr();
        RunJoiner.Joined joined;
        try {
            joined = RunJoiner.join(runs.stream().map(RunArgument::found).toList(), output);
        } catch (ResultsFormatException refused) {
            throw refused;
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the runs were not joined in " + output, failed);
        }
        for (String clash : joined.clashes())
            err.println("verbale: " + output.resolve(clash) + " is there with another content, and was left as it is");
        Run read = RunReader.read(output, TestKeeper.FAILURES);
        out.println(Headline.of(read));
        out.println(
                (joined.shards().size() == 1 ? "1 run" : joined.shards().size() + " runs") + " joined in " + output);
        if (!read.problems().isEmpty()) err.println(ProblemList.of(read));
        return ExitCodes.DONE;
    }
}
