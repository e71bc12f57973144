package dev.verbale.cli;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Parameters;

/** Which run. */
final class RunArgument {

    @Parameters(
            arity = "0..1",
            paramLabel = "RUN",
            description =
                    "A run's folder, its name in target/verbale, a folder that holds runs, or a project's folder: then the "
                            + "newest in there, which is the last by name. Left out: the newest in target/verbale.")
    private @Nullable Path run;

    Run read() throws IOException {
        return RunReader.read(path());
    }

    /** With what {@code keeper} keeps of its tests. */
    Run read(TestKeeper keeper) throws IOException {
        return RunReader.read(path(), keeper);
    }

    /** The folder that holds it and its kin. */
    Path rootOf(Run read) {
        Path around = read.folder().toAbsolutePath().normalize().getParent();
        return around == null ? root() : around;
    }

    /** Where it is looked for; a folder that may hold many. */
    Path path() {
        return run == null ? root() : found(run);
    }

    /** A run by its folder, or by its name in the folder that holds runs. */
    static Path found(Path named) {
        Path inRoot = root().resolve(named);
        return !Files.exists(named) && Files.isDirectory(inRoot) ? inRoot : named;
    }

    /** The folder that holds runs where nobody names one. */
    static Path root() {
        String set = System.getenv("VERBALE_ROOT");
        return Path.of(set == null || set.isBlank() ? ResultsRoot.DEFAULT : set);
    }
}
