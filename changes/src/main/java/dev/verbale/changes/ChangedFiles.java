package dev.verbale.changes;

import java.nio.file.Path;
import java.util.Collections;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * Files that are not what they were at a commit: committed since, only in the work tree, or not yet known to git.
 *
 * @param root the repository's folder, which their names begin at
 * @param names with forward slashes; those that were deleted or renamed under both names
 * @since 0.2.0
 */
public record ChangedFiles(Path root, SortedSet<String> names) {

    public ChangedFiles {
        names = Collections.unmodifiableSortedSet(new TreeSet<>(names));
    }

    /**
     * Since {@code commit}, asked of the git on the PATH.
     *
     * @param folder anywhere in the repository
     * @param commit a hash, a branch, a tag, or {@code HEAD~3}
     * @throws ChangesException where there is no git, no repository, or no such commit
     */
    public static ChangedFiles since(Path folder, String commit) throws ChangesException {
        if (commit.isBlank() || commit.startsWith("-"))
            throw new ChangesException("'" + commit + "' is no commit. Name a hash, a branch, a tag, or HEAD~1");
        Path root = Path.of(Git.ask(folder, "rev-parse", "--show-toplevel").strip());
        String resolved = Git.ask(folder, "rev-parse", "--verify", "--quiet", "--end-of-options", commit + "^{commit}")
                .strip();
        SortedSet<String> names = new TreeSet<>();
        add(Git.ask(root, "diff", "--name-only", "--no-renames", "-z", resolved, "--"), names);
        add(Git.ask(root, "ls-files", "--others", "--exclude-standard", "-z"), names);
        return new ChangedFiles(root, names);
    }

    private static void add(String listed, SortedSet<String> names) {
        for (String name : listed.split("\0", -1)) if (!name.isEmpty()) names.add(name);
    }
}
