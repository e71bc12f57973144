package dev.verbale.cli;

import dev.verbale.folder.RunFolder;
import dev.verbale.imports.RunImporter;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import dev.verbale.results.summary.Headline;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** A run of what other tools wrote. */
@Command(
        name = "import",
        description = {
            "Makes a run of files of other tools: JUnit-style XML (.xml), TAP (.tap) and HTTP archives (.har).",
            "Everything here works on it, the page too. Secrets in them are masked as they are where a run is recorded."
        },
        mixinStandardHelpOptions = true,
        footer = {
            "  verbale import target/surefire-reports --output target/verbale/imported",
            "  verbale page target/verbale/imported"
        })
final class ImportCommand implements Callable<Integer> {

    @Parameters(arity = "1..*", paramLabel = "FILE", description = "Files, or folders that are searched for them")
    private List<Path> sources = new ArrayList<>();

    @Option(
            names = "--output",
            paramLabel = "FOLDER",
            required = true,
            description = "The run's folder, which must not be there yet")
    private Path output = Path.of("");

    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() throws Exception {
        RunFolder folder;
        try {
            folder = RunImporter.importAll(sources, output);
        } catch (ResultsFormatException refused) {
            throw refused;
        } catch (IOException failed) {
            throw new FailureMessages.NotWritten("nothing was imported into " + output, failed);
        }
        Run read = RunReader.read(folder.path(), TestKeeper.FAILURES);
        spec.commandLine().getOut().println(Headline.of(read));
        spec.commandLine().getOut().println("Imported into " + output);
        if (!read.problems().isEmpty()) spec.commandLine().getErr().println(ProblemList.of(read));
        return ExitCodes.DONE;
    }
}
