package dev.verbale.results.source;

import dev.verbale.event.Failure;
import dev.verbale.results.FailureParts;
import dev.verbale.results.OwnFrames;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * What there is to say of the code that failed. Source lines and commits stand as they are: nothing in them is masked, which is why
 * somebody has to name the folders.
 *
 * @param files where sources are
 * @param commits that touched a file last, the newest first, each as a line; empty where nobody knows
 * @since 0.2.0
 */
public record CodeAtHand(SourceFiles files, Function<Path, List<String>> commits) {

    private static final int MAX_FRAMES = 20;

    /** Around the nearest frame of the suite's own in {@code failure} whose file is at hand; null where none is. */
    public @Nullable SourceSnippet snippet(Failure failure, OwnFrames own) {
        SourceSnippet found = failure.stack()
                .lines()
                .filter(own::isOwnLine)
                .limit(MAX_FRAMES)
                .map(files::around)
                .filter(Objects::nonNull)
                .findFirst()
                .orElse(null);
        // One that gathers others was thrown where they were told: its line is that of the first of them.
        for (Failure part : FailureParts.of(failure)) if (found == null) found = snippet(part, own);
        return found;
    }
}
