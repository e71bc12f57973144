package dev.verbale.engine.run;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.zip.InflaterInputStream;
import org.jspecify.annotations.Nullable;

/**
 * What git knows of the working tree, read from its files: no program is started in the tests' process. Layout by
 * gitrepository-layout(5); a commit's own text is there as long as its object is loose, as those just made are. Where
 * there is no repository, or an odd one, there are no facts.
 */
final class GitFacts {

    private GitFacts() {}

    public static void gather(Path start, Map<String, String> facts) {
        try {
            Path git = repository(start);
            if (git == null) return;
            String head = Files.readString(git.resolve("HEAD")).strip();
            boolean onBranch = head.startsWith("ref: ");
            if (onBranch) facts.put("branch", head.substring(5).replaceFirst("^refs/heads/", ""));
            String commit = onBranch ? resolved(git, head.substring(5)) : head;
            if (commit == null) return;
            facts.put("commit", commit);
            about(common(git), commit, facts);
        } catch (IOException | RuntimeException unreadable) {
            // a run must not suffer from what its repository looks like
        }
    }

    private static @Nullable Path repository(Path start) throws IOException {
        for (Path folder = start; folder != null; folder = folder.getParent()) {
            Path git = folder.resolve(".git");
            if (Files.isDirectory(git)) return git;
            if (!Files.isRegularFile(git)) continue;
            String pointer = Files.readString(git).strip(); // a worktree or a submodule
            return pointer.startsWith("gitdir: ")
                    ? folder.resolve(pointer.substring(8)).normalize()
                    : null;
        }
        return null;
    }

    /** Worktrees share objects and branches. */
    private static Path common(Path git) throws IOException {
        Path pointer = git.resolve("commondir");
        return Files.isRegularFile(pointer)
                ? git.resolve(Files.readString(pointer).strip()).normalize()
                : git;
    }

    private static @Nullable String resolved(Path git, String ref) throws IOException {
        for (Path position : new Path[] {git, common(git)}) {
            Path file = position.resolve(ref);
            if (Files.isRegularFile(file)) return Files.readString(file).strip();
        }
        Path packed = common(git).resolve("packed-refs");
        if (!Files.isRegularFile(packed)) return null;
        for (String line : Files.readAllLines(packed)) if (line.endsWith(" " + ref)) return line.split(" ")[0];
        return null;
    }

    private static void about(Path git, String commit, Map<String, String> facts) throws IOException {
        Path object = git.resolve("objects").resolve(commit.substring(0, 2)).resolve(commit.substring(2));
        if (!Files.isRegularFile(object)) return; // packed
        String text;
        try (var in = new InflaterInputStream(Files.newInputStream(object))) {
            text = new String(in.readNBytes(100_000), StandardCharsets.UTF_8);
        }
        for (String line : text.split("\n")) {
            if (line.isEmpty()) break;
            if (line.startsWith("author "))
                facts.put("author", line.substring(7).replaceFirst(" <.*", ""));
        }
        int message = text.indexOf("\n\n");
        if (message >= 0)
            facts.put("subject", text.substring(message + 2).lines().findFirst().orElse(""));
    }
}
