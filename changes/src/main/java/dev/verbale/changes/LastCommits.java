package dev.verbale.changes;

import java.nio.file.Path;
import java.util.List;

/**
 * The commits that touched a file last.
 *
 * @since 0.2.0
 */
public final class LastCommits {

    private LastCommits() {}

    /**
     * Asked of the git on the PATH, as lines such as {@code 3f09a1c 2026-11-24 Ada: Lend two sachets}, the newest first.
     *
     * @param limit how many at the most
     * @return nothing where there is no git, or no repository that has the file
     */
    public static List<String> of(Path file, int limit) {
        Path folder = file.toAbsolutePath().getParent();
        if (folder == null) return List.of();
        try {
            return Git.ask(
                            folder,
                            "log",
                            "--no-color",
                            "--max-count=" + limit,
                            "--date=short",
                            "--format=%h %ad %an: %s",
                            "--",
                            file.toAbsolutePath().toString())
                    .lines()
                    .toList();
        } catch (ChangesException nobodyKnows) {
            return List.of();
        }
    }
}
