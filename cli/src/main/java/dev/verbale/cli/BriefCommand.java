package dev.verbale.cli;

import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.TestResult;
import dev.verbale.results.brief.BriefOptions;
import dev.verbale.results.brief.FailureBrief;
import dev.verbale.results.reason.FailureReason;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Prints failures as text for an issue or an assistant. */
@Command(
        name = "brief",
        description =
                "Prints a failure as text for an issue, a message or an assistant: what failed, what the test did until "
                        + "then, what browser and service said, who else has it. As masked as the run is.",
        mixinStandardHelpOptions = true,
        footerHeading = "%nExamples:%n",
        footer = {
            "  verbale brief --test SeedsPageTest",
            "  verbale brief --test lends --size 4000 | xclip",
            "  verbale brief --sources . --test SeedsPageTest   with the lines that failed and their last commits",
        })
final class BriefCommand implements Callable<Integer> {

    private static final int SMALLEST = 500;

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(
            names = "--test",
            paramLabel = "TEXT",
            description =
                    "Of tests that did not pass, those whose id holds TEXT. Left out: the first of the most frequent reason.")
    private @Nullable String test;

    @Option(
            names = "--baseline",
            paramLabel = "RUN",
            description = "A run in which the tests passed, such as the last good one: an element that is not found "
                    + "is looked for by what it was then.")
    private @Nullable Path baseline;

    @Mixin
    private final SourcesOption sources = new SourcesOption();

    @Option(
            names = "--size",
            paramLabel = "CHARACTERS",
            defaultValue = "12000",
            description = "How long each may be. What is least worth is left out first. Default: ${DEFAULT-VALUE}")
    private int size;

    @Option(
            names = "--limit",
            paramLabel = "NUMBER",
            defaultValue = "5",
            description = "How many at the most. Default: ${DEFAULT-VALUE}")
    private int limit;

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        if (size < SMALLEST || limit < 1)
            throw new ParameterException(
                    spec.commandLine(),
                    size < SMALLEST
                            ? "--size " + size + " holds no brief; give it " + SMALLEST + " or more"
                            : "--limit takes 1 or more");
        Run read = run.read(TestKeeper.FAILURES);
        PrintWriter out = spec.commandLine().getOut();
        List<FailureReason> reasons = FailureReason.of(read);
        List<TestResult> wanted = wanted(read, reasons);
        if (wanted.isEmpty()) {
            out.println("Every test of " + read.name() + " passed or was not run.");
            return ExitCodes.DONE;
        }
        var options = new BriefOptions(size, true, sources.code(spec), good());
        Map<String, FailureReason> reasonOf = FailureReason.byTest(reasons);
        for (TestResult one : wanted.subList(0, Math.min(limit, wanted.size())))
            out.println(TerminalText.printable(
                    FailureBrief.of(read, one, reasonOf.get(one.id()), options).text()));
        if (wanted.size() > limit)
            spec.commandLine()
                    .getErr()
                    .println("verbale: " + (wanted.size() - limit) + " more have it in their id; --limit shows them");
        return ExitCodes.DONE;
    }

    private Map<String, TestResult> good() throws IOException {
        return baseline == null ? Map.of() : BriefOptions.passed(RunReader.read(RunArgument.found(baseline)));
    }

    private List<TestResult> wanted(Run read, List<FailureReason> reasons) {
        List<TestResult> failing = read.needingAttention();
        if (test == null) {
            return reasons.isEmpty() || reasons.get(0).tests().isEmpty()
                    ? failing.subList(0, Math.min(1, failing.size()))
                    : reasons.get(0).tests().subList(0, 1);
        }
        List<TestResult> named =
                failing.stream().filter(one -> one.id().contains(test)).toList();
        if (named.isEmpty())
            throw new ParameterException(
                    spec.commandLine(),
                    "No test of " + read.name() + " that did not pass has '" + test + "' in its id.");
        return named;
    }
}
