package dev.verbale.cli;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;

/**
 * The commits between two runs, where git and the repository are at hand.
 *
 * @param all one line each, the newest first, those that touched a failing test's own class before the others
 * @param touching how many of them did that
 */
record Commits(List<String> all, int touching) {

    private static final Commits NONE = new Commits(List.of(), 0);
    private static final Pattern HASH = Pattern.compile("[0-9a-f]{7,64}");
    private static final int MAX_BYTES = 10_000_000;
    private static final String MARK = "\u0001";

    /**
     * @param classes the names of the failing tests' classes
     * @return none where nobody can say
     */
    static Commits between(Path folder, String before, String after, Collection<String> classes) {
        if (!HASH.matcher(before).matches() || !HASH.matcher(after).matches() || before.equals(after)) return NONE;
        String log;
        try {
            Process git = new ProcessBuilder(
                            "git",
                            "log",
                            "--no-color",
                            "--name-only",
                            "--format=" + MARK + "%h %s",
                            before + ".." + after)
                    .directory(folder.toFile())
                    .redirectError(ProcessBuilder.Redirect.DISCARD)
                    .start();
            git.getOutputStream().close();
            log = new String(git.getInputStream().readNBytes(MAX_BYTES), StandardCharsets.UTF_8);
            if (!git.waitFor(10, TimeUnit.SECONDS) || git.exitValue() != 0) {
                git.destroyForcibly();
                return NONE;
            }
        } catch (IOException noGit) {
            return NONE;
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            return NONE;
        }
        return of(log, classes);
    }

    private static Commits of(String log, Collection<String> classes) {
        Set<String> files = new TreeSet<>();
        for (String name : classes)
            files.add("/" + name.replaceFirst("\\$.*", "").replace('.', '/') + ".");
        List<String> touching = new ArrayList<>();
        List<String> others = new ArrayList<>();
        for (String commit : log.split(MARK)) {
            if (commit.isBlank()) continue;
            List<String> lines = commit.lines().filter(line -> !line.isBlank()).toList();
            boolean touches =
                    lines.stream().skip(1).anyMatch(file -> files.stream().anyMatch(("/" + file)::contains));
            (touches ? touching : others).add(lines.get(0));
        }
        int count = touching.size();
        touching.addAll(others);
        return new Commits(touching, count);
    }
}
