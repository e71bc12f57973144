package dev.verbale.acceptance;

import java.io.File;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;

/** A program run to its end. */
record Jvm(int code, String output) {

    /** For a JVM that is over before it pays to compile anything well. */
    static final List<String> SHORT = List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC");

    /** {@code java} with the class path of this JVM. */
    static Jvm java(Map<String, String> environment, Path folder, String... arguments) throws Exception {
        List<String> command = new ArrayList<>(List.of("-cp", classPath()));
        command.addAll(Arrays.asList(arguments));
        return bareJava(environment, folder, command.toArray(String[]::new));
    }

    static Jvm bareJava(Map<String, String> environment, Path folder, String... arguments) throws Exception {
        List<String> command = new ArrayList<>();
        command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.addAll(SHORT);
        command.addAll(Arrays.asList(arguments));
        return run(environment, folder, command);
    }

    static Jvm run(Map<String, String> environment, Path folder, List<String> command) throws Exception {
        var builder = new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true);
        builder.environment().putAll(environment);
        Process process = builder.start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return new Jvm(process.waitFor(), output);
    }

    static String classPath() {
        return System.getProperty("java.class.path");
    }

    static List<Path> classPathEntries() {
        return Arrays.stream(classPath().split(File.pathSeparator))
                .map(Path::of)
                .toList();
    }
}
