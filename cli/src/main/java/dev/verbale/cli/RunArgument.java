package dev.verbale.cli;

import dev.verbale.folder.ResultsRoot;
import dev.verbale.folder.RunFolder;
import dev.verbale.results.ResultsFormatException;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.results.TestKeeper;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Parameters;

/** Which run. */
final class RunArgument {

    private static final long LOOKED_EVERY_MILLIS = 250;

    @Parameters(
            arity = "0..1",
            paramLabel = "RUN",
            description = {
                "The run; left out, the newest in target/verbale",
                "A folder, a name in target/verbale, a pack (.zip), a folder that holds runs, or a project: then the newest in there, which is the last by name."
            })
    private @Nullable Path run;

    Run read() throws IOException {
        return RunReader.read(path());
    }

    /** With what {@code keeper} keeps of its tests. */
    Run read(TestKeeper keeper) throws IOException {
        return RunReader.read(path(), keeper);
    }

    /** The folder that holds a run and its kin. */
    static Path around(Run read) {
        Path around =
                OpenArchives.outside(read.folder()).toAbsolutePath().normalize().getParent();
        return around == null ? root() : around;
    }

    /** Where it is looked for; a folder that may hold many. */
    Path path() {
        return run == null ? root() : found(run);
    }

    /** Waits for a run that is not there yet, and says so. */
    RunFolder next(PrintWriter err) throws IOException, InterruptedException {
        Path before = newest();
        err.println("Waiting for the next run in " + path() + " ...");
        err.flush();
        while (true) {
            Path now = newest();
            if (now != null && !now.equals(before)) return new RunFolder(now);
            Thread.sleep(LOOKED_EVERY_MILLIS);
        }
    }

    private @Nullable Path newest() throws IOException {
        try {
            return RunReader.find(path()).path();
        } catch (ResultsFormatException none) {
            return null;
        }
    }

    /** A run by its folder, or by its name in the folder that holds runs. */
    static Path found(Path named) {
        Path inRoot = root().resolve(named);
        try {
            return OpenArchives.run(!Files.exists(named) && Files.exists(inRoot) ? inRoot : named);
        } catch (IOException refused) {
            throw new UncheckedIOException(refused);
        }
    }

    /** The folder that holds runs where nobody names one. */
    static Path root() {
        String set = System.getenv("VERBALE_ROOT");
        return Path.of(set == null || set.isBlank() ? ResultsRoot.DEFAULT : set);
    }
}
