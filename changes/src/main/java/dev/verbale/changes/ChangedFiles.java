package dev.verbale.changes;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
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
        Path root = Path.of(git(folder, "rev-parse", "--show-toplevel").strip());
        String resolved = git(folder, "rev-parse", "--verify", "--quiet", "--end-of-options", commit + "^{commit}")
                .strip();
        SortedSet<String> names = new TreeSet<>();
        add(git(root, "diff", "--name-only", "--no-renames", "-z", resolved, "--"), names);
        add(git(root, "ls-files", "--others", "--exclude-standard", "-z"), names);
        return new ChangedFiles(root, names);
    }

    private static void add(String listed, SortedSet<String> names) {
        for (String name : listed.split("\0", -1)) if (!name.isEmpty()) names.add(name);
    }

    private static String git(Path folder, String... arguments) throws ChangesException {
        List<String> command = new ArrayList<>(List.of("git"));
        command.addAll(List.of(arguments));
        try {
            Path complaint = Files.createTempFile("verbale-git", ".txt");
            try {
                Process git = new ProcessBuilder(command)
                        .directory(folder.toFile())
                        .redirectError(complaint.toFile())
                        .start();
                git.getOutputStream().close();
                String answer = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
                if (git.waitFor() != 0)
                    throw new ChangesException(refused(folder, arguments, Files.readString(complaint)));
                return answer;
            } finally {
                Files.delete(complaint);
            }
        } catch (IOException noGit) {
            throw new ChangesException(
                    "git could not be started (" + noGit.getMessage() + "). It has to be on the PATH");
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            throw new ChangesException("interrupted while git was asked");
        }
    }

    private static String refused(Path folder, String[] arguments, String complaint) {
        if (arguments[0].equals("rev-parse") && arguments.length > 2)
            return "git knows no commit '" + arguments[arguments.length - 1].replace("^{commit}", "")
                    + "'. Name a hash, a branch, a tag, or HEAD~1; a shallow clone may lack it";
        String why = complaint.isBlank()
                ? "it does not say why"
                : complaint.strip().lines().findFirst().orElse("");
        return "git " + arguments[0] + " failed in " + folder + ": " + why;
    }
}
