package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.report.Page;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.summary.Headline;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Spec;

/** Writes the page of a run. */
@Command(
        name = "page",
        description = "Writes the page of a run: a folder whose index.html opens by double click.",
        mixinStandardHelpOptions = true,
        footerHeading = "%nExamples:%n",
        footer = {
            "  verbale page",
            "  verbale page target/verbale/2026-11-24_103107_k3f9",
            "  verbale page --output site/tonight   a folder to hand on; it holds all its files",
            "  verbale page --baseline 2026-11-23_221500_a07c",
        })
final class PageCommand implements Callable<Integer> {

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(
            names = "--output",
            paramLabel = "FOLDER",
            description = "Where to write it. Left out: page, in the run's folder.")
    private @Nullable Path output;

    @Option(
            names = "--baseline",
            paramLabel = "RUN",
            description = {
                "A run to compare with, such as the last good one: each",
                "exchange with that of the same test in it."
            })
    private @Nullable Path baseline;

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        Run read = run.read();
        Path folder = output == null ? new RunFolder(read.folder()).page() : output;
        Run before = baseline == null ? null : RunReader.read(RunArgument.found(baseline));
        Path index;
        try {
            index = Page.write(
                    read, folder, before, history.read(spec.commandLine().getErr()));
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the page was not written to " + folder, failed);
        }
        out.println(Headline.of(read));
        out.println("Page: " + index);
        if (!read.problems().isEmpty()) spec.commandLine().getErr().println(ProblemList.of(read));
        return ExitCodes.DONE;
    }
}
