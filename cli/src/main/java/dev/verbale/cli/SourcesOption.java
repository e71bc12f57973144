package dev.verbale.cli;

import dev.verbale.changes.LastCommits;
import dev.verbale.results.source.CodeAtHand;
import dev.verbale.results.source.SourceFiles;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

/** Where the suite's sources are. */
final class SourcesOption {

    private static final int COMMITS = 5;

    @Option(
            names = "--sources",
            paramLabel = "FOLDER",
            description = {
                "Where the suite's sources are, to show their lines",
                "Such as a project's folder: then the lines around the one that failed are shown, as they stand and not masked, and in a brief the commits that touched its file last. May be given several times."
            })
    private List<Path> folders = new ArrayList<>();

    /** In the folder of here, where nobody named one: what a job has checked out. */
    CodeAtHand codeHere(CommandSpec spec) throws IOException {
        CodeAtHand named = code(spec);
        return named != null ? named : new CodeAtHand(SourceFiles.below(List.of(Path.of(""))), file -> List.of());
    }

    /** Null where nobody named a folder. */
    @Nullable
    CodeAtHand code(CommandSpec spec) throws IOException {
        if (folders.isEmpty()) return null;
        for (Path folder : folders)
            if (!Files.isDirectory(folder))
                throw new ParameterException(spec.commandLine(), "--sources " + folder + " is no folder");
        return new CodeAtHand(SourceFiles.below(folders), file -> LastCommits.of(file, COMMITS));
    }
}
