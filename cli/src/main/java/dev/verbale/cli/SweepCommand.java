package dev.verbale.cli;

import dev.verbale.results.sweep.RunSweeper;
import dev.verbale.results.sweep.RunSweeper.Judged;
import dev.verbale.results.sweep.SweepRule;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Deletes runs. */
@Command(
        name = "sweep",
        description = {
            "Deletes runs that nobody needs any more.",
            "By number, age or size. Kept are runs with a name of somebody's own, runs that are still recorded, failing ones, and the last good one of each branch. What is remembered of them stays."
        },
        mixinStandardHelpOptions = true,
        footer = {"  verbale runs sweep --keep-days 14 --dry-run", "  verbale runs sweep --keep-runs 20 --max-size 5GB"
        })
final class SweepCommand implements Callable<Integer> {

    @Parameters(arity = "0..1", paramLabel = "FOLDER", description = "What holds runs; left out, target/verbale")
    private @Nullable Path folder;

    @Option(names = "--keep-runs", paramLabel = "N", description = "How many of the newest stay")
    private @Nullable Integer keepRuns;

    @Option(names = "--keep-days", paramLabel = "N", description = "How old a run may be")
    private @Nullable Integer keepDays;

    @Option(names = "--max-size", paramLabel = "SIZE", description = "How large all may be, such as 5GB")
    private @Nullable String maxSize;

    @Option(names = "--also-failing", description = "Failing runs go too")
    private boolean alsoFailing;

    @Option(names = "--dry-run", description = "Only says what would be done")
    private boolean dryRun;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (keepRuns == null && keepDays == null && maxSize == null)
            throw wrong("Say what stays: --keep-runs, --keep-days or --max-size");
        if (keepRuns != null && keepRuns < 0) throw wrong("--keep-runs takes a number from 0, not " + keepRuns);
        if (keepDays != null && keepDays < 0) throw wrong("--keep-days takes a number from 0, not " + keepDays);
        var rule = new SweepRule(
                keepRuns,
                keepDays == null ? null : Duration.ofDays(keepDays),
                maxSize == null
                        ? null
                        : SizeText.bytes(maxSize)
                                .orElseThrow(
                                        () -> wrong("--max-size takes a size such as 500MB or 5GB, not " + maxSize)),
                alsoFailing);
        var sweeper = new RunSweeper(
                folder == null ? RunArgument.root() : folder,
                rule,
                Clock.systemUTC().instant());
        List<Judged> plan;
        try {
            plan = dryRun ? sweeper.plan() : sweeper.sweep();
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the sweep stopped", failed);
        }
        print(spec.commandLine().getOut(), plan);
        return ExitCodes.DONE;
    }

    private void print(PrintWriter out, List<Judged> plan) {
        long freed = 0;
        int going = 0;
        for (Judged one : plan) {
            if (one.why().isEmpty()) continue;
            out.println(one.run() + "  " + (one.goes() ? dryRun ? "would go: " : "deleted: " : "stays: ")
                    + TerminalText.printable(one.why()));
            if (!one.goes()) continue;
            freed += one.bytes();
            going++;
        }
        out.println((going == 1 ? "1 run" : going + " runs") + " of " + plan.size()
                + (dryRun ? " would go, " : " deleted, ") + SizeText.of(freed));
    }

    private ParameterException wrong(String what) {
        return new ParameterException(spec.commandLine(), what);
    }
}
