package dev.verbale.recorder;

import dev.verbale.folder.ResultsRoot;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * How a run is recorded.
 *
 * @param enabled whether it is recorded at all
 * @param root the folder that run folders are made in; a relative path is relative to where the JVM was started
 * @param run the name of the run folder to write to, made where it is not there; null for a new one, or for the one that
 *     the other JVMs of the same build write to
 * @param closingLine whether the end of a run is said in one line on the standard output
 */
public record RecorderOptions(
        boolean enabled, Path root, @Nullable String run, boolean closingLine) {

    /** What holds where nothing was set. */
    public static RecorderOptions defaults() {
        return new RecorderOptions(true, Path.of(ResultsRoot.DEFAULT), null, true);
    }

    public RecorderOptions withEnabled(boolean on) {
        return new RecorderOptions(on, root, run, closingLine);
    }

    public RecorderOptions withRoot(Path folder) {
        return new RecorderOptions(enabled, folder, run, closingLine);
    }

    public RecorderOptions withRun(@Nullable String name) {
        return new RecorderOptions(enabled, root, name, closingLine);
    }

    public RecorderOptions withClosingLine(boolean on) {
        return new RecorderOptions(enabled, root, run, on);
    }
}
