package dev.verbale.changes;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import javax.tools.ToolProvider;

/** A project in a repository of its own, compiled by the JDK's compiler. */
final class SmallProject {

    final Path folder;

    SmallProject(Path folder) throws Exception {
        this.folder = folder;
        git("init", "-q");
        git("config", "user.email", "ada@orto.example");
        git("config", "user.name", "Ada");
        write(".gitignore", "target/\n");
    }

    SmallProject main(String name, String source) throws IOException {
        return write("src/main/java/orto/" + name + ".java", "package orto;\n" + source);
    }

    SmallProject test(String name, String source) throws IOException {
        return write("src/test/java/orto/" + name + ".java", "package orto;\n" + source);
    }

    SmallProject write(String name, String text) throws IOException {
        Path file = folder.resolve(name);
        Files.createDirectories(file.getParent());
        Files.writeString(file, text);
        // A compiler may be done within the same tick of a coarse clock.
        Files.setLastModifiedTime(file, FileTime.from(Instant.now().minusSeconds(10)));
        return this;
    }

    /** Changes a source without changing what it means. */
    SmallProject touch(String name) throws IOException {
        return write(name, Files.readString(folder.resolve(name)) + "\n");
    }

    SmallProject compile() throws IOException {
        compile("src/main/java", "target/classes", "");
        compile(
                "src/test/java",
                "target/test-classes",
                folder.resolve("target/classes").toString());
        return this;
    }

    private void compile(String from, String into, String classPath) throws IOException {
        Path target = Files.createDirectories(folder.resolve(into));
        List<String> arguments =
                new ArrayList<>(List.of("-d", target.toString(), "-cp", classPath + java.io.File.pathSeparator));
        try (Stream<Path> sources = Files.walk(folder.resolve(from))) {
            sources.filter(file -> file.toString().endsWith(".java"))
                    .map(Path::toString)
                    .forEach(arguments::add);
        }
        int failed = ToolProvider.getSystemJavaCompiler().run(null, null, null, arguments.toArray(String[]::new));
        if (failed != 0) throw new AssertionError("the small project does not compile");
    }

    SmallProject commit() throws Exception {
        git("add", "-A");
        git("commit", "-q", "-m", "Grow");
        return this;
    }

    void git(String... arguments) throws Exception {
        List<String> command = new ArrayList<>(List.of("git"));
        command.addAll(List.of(arguments));
        Process git = new ProcessBuilder(command)
                .directory(folder.toFile())
                .redirectErrorStream(true)
                .start();
        String output = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (git.waitFor() != 0) throw new AssertionError(command + ": " + output);
    }

    AffectedTests affected(String... ignored) throws Exception {
        return AffectedTests.of(folder, ChangedFiles.since(folder, "HEAD"), List.of(ignored));
    }
}
