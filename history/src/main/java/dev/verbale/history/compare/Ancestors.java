package dev.verbale.history.compare;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.Set;

/** The commits that a commit came from, as {@code git} tells them. */
final class Ancestors {

    private static final int MAX_COMMITS = 5_000;

    private Ancestors() {}

    /** The commit that {@code revision} names, such as a tag; empty where git does not know it, or is not there. */
    static String commit(String revision, Path folder) {
        if (!revision.matches("[\\w][\\w./+~^-]{0,200}") || revision.contains("..")) return "";
        try {
            Process git = new ProcessBuilder("git", "rev-parse", "--verify", "--quiet", revision + "^{commit}")
                    .directory(folder.toFile())
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            git.getOutputStream().close();
            String answer = new String(git.getInputStream().readNBytes(200), StandardCharsets.US_ASCII).strip();
            return answer.matches("[0-9a-f]{40,64}") ? answer : "";
        } catch (IOException none) {
            return "";
        }
    }

    /**
     * Those of {@code commit} and itself, the newest of them; none where there is no git, no repository around {@code folder}, or not that
     * commit.
     */
    static Set<String> of(String commit, Path folder) {
        Set<String> ancestors = new HashSet<>();
        if (!commit.matches("[0-9a-f]{7,64}")) return ancestors;
        try {
            Process git = new ProcessBuilder("git", "rev-list", "--max-count=" + MAX_COMMITS, commit, "--")
                    .directory(folder.toFile())
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            git.getOutputStream().close();
            try (var lines =
                    new BufferedReader(new InputStreamReader(git.getInputStream(), StandardCharsets.US_ASCII))) {
                for (String line = lines.readLine(); line != null; line = lines.readLine()) ancestors.add(line);
            }
        } catch (IOException none) {
            // then nobody knows
        }
        return ancestors;
    }
}
