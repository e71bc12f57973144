package dev.verbale.changes;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/** The git on the PATH. */
final class Git {

    private Git() {}

    /** What it answers. */
    static String ask(Path folder, String... arguments) throws ChangesException {
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
