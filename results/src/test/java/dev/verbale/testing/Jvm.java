package dev.verbale.testing;

import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/**
 * A program that a test ran to its end: a JVM as a rule.
 *
 * @param output of both streams
 */
public record Jvm(int code, String output) {

    /** For a JVM that is over before it pays to compile anything well. */
    public static final List<String> SHORT = List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC");

    /** {@code main} with the class path of this JVM, in this folder. */
    public static Jvm of(List<String> options, Class<?> main, String... arguments)
            throws IOException, InterruptedException {
        return run(Map.of(), Path.of(""), command(options, classPath(), main, arguments));
    }

    /** How {@code main} is started, as a JVM that is soon over. */
    public static List<String> command(List<String> options, String classPath, Class<?> main, String... arguments) {
        List<String> command = java(options);
        command.addAll(List.of("-cp", classPath, main.getName()));
        command.addAll(Arrays.asList(arguments));
        return command;
    }

    private static List<String> java(List<String> options) {
        List<String> command = new ArrayList<>();
        command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.addAll(SHORT);
        command.addAll(options);
        return command;
    }

    /** {@code java} with the class path of this JVM; options come first. */
    public static Jvm java(Map<String, String> environment, Path folder, String... arguments)
            throws IOException, InterruptedException {
        List<String> command = java(List.of("-cp", classPath()));
        command.addAll(Arrays.asList(arguments));
        return run(environment, folder, command);
    }

    /** {@code java} with nothing but those arguments. */
    public static Jvm bareJava(Map<String, String> environment, Path folder, String... arguments)
            throws IOException, InterruptedException {
        return run(environment, folder, java(Arrays.asList(arguments)));
    }

    /** Runs {@code command} and waits for its end. */
    public static Jvm run(Map<String, String> environment, Path folder, List<String> command)
            throws IOException, InterruptedException {
        var builder = new ProcessBuilder(command)
                .directory(folder.toAbsolutePath().toFile())
                .redirectErrorStream(true);
        builder.environment().putAll(environment);
        Process process = builder.start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return new Jvm(process.waitFor(), output);
    }

    /** That of this JVM, which holds from any folder. */
    public static String classPath() {
        return classPathEntries().stream()
                .map(entry -> entry.toAbsolutePath().toString())
                .collect(Collectors.joining(File.pathSeparator));
    }

    public static List<Path> classPathEntries() {
        return Arrays.stream(System.getProperty("java.class.path").split(File.pathSeparator))
                .map(Path::of)
                .toList();
    }
}
