package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.report.Page;
import dev.verbale.report.PageOptions;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.summary.Headline;
import dev.verbale.rules.yaml.YamlFormatException;
import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** Writes the page of a run. */
@Command(
        name = "page",
        description = "Writes the page of a run: a folder whose index.html opens by double click.",
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale page",
            "  verbale page --output site/tonight   # a folder to hand on, with all its files",
            "  verbale page --single-file --output tonight.html   # one file, to send",
            "  verbale page --title Orto --accent '#b5532a' --leave-out environment"
        })
final class PageCommand implements Callable<Integer> {

    private static final long MEGABYTE = 1_000_000;

    @Mixin
    private final RunArgument run = new RunArgument();

    @Option(
            names = "--output",
            paramLabel = "FOLDER",
            description = {
                "Where; left out, page in the run's folder",
                "With --single-file the file; left out, page.html in the run's folder."
            })
    private @Nullable Path output;

    @Option(names = "--single-file", description = "One HTML file with all that belongs to it")
    private boolean isSingleFile;

    @Option(
            names = "--max-attachments",
            paramLabel = "MB",
            defaultValue = "100",
            description = {
                "How much of them a single file has (${DEFAULT-VALUE})",
                "Images first, then texts, then videos."
            })
    private int maxAttachments;

    @Mixin
    private final SourcesOption sources = new SourcesOption();

    @Mixin
    private final PageLookOption look = new PageLookOption();

    @Option(
            names = "--baseline",
            paramLabel = "RUN",
            description = "A run to compare tests with, such as the last good")
    private @Nullable Path baseline;

    @Mixin
    private final RulesOption rules = new RulesOption();

    @Mixin
    private final HistoryOption history = new HistoryOption();

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        PrintWriter out = spec.commandLine().getOut();
        RunFolder folder = RunReader.find(run.path());
        if (maxAttachments < 0) throw new ParameterException(spec.commandLine(), "--max-attachments takes 0 or more");
        Path target = output == null ? usual(OpenArchives.beside(folder.page())) : output;
        PageOptions options = options(folder);
        Page.Written written;
        try {
            written = isSingleFile
                    ? Page.writeSingleFile(folder, target, options, maxAttachments * MEGABYTE)
                    : Page.write(folder, target, options, any -> true);
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("the page was not written to " + target, failed);
        }
        Run read = written.run();
        out.println(Headline.of(read));
        out.println("Page: " + written.index());
        if (!read.problems().isEmpty()) spec.commandLine().getErr().println(ProblemList.of(read));
        return ExitCodes.DONE;
    }

    private Path usual(Path folder) {
        return isSingleFile ? folder.resolveSibling(folder.getFileName() + ".html") : folder;
    }

    private PageOptions options(RunFolder folder) throws IOException, YamlFormatException {
        Run before = baseline == null ? null : RunReader.read(RunArgument.found(baseline));
        try {
            return look.options()
                    .withBaseline(before)
                    .withCode(sources.code(spec))
                    .withRules(rules.read().triage())
                    .withEarlier(history.earlier(folder, spec.commandLine().getErr()));
        } catch (IllegalArgumentException wrong) {
            throw new ParameterException(spec.commandLine(), wrong.getMessage(), wrong);
        }
    }
}
