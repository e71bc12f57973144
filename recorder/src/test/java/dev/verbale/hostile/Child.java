package dev.verbale.hostile;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;

/** A JVM of its own, for what a test's own JVM does not survive, or cannot be started for. */
record Child(int code, String output) {

    /** Runs {@code main} with the class path of this JVM; one that does not end is killed, and has the code -1. */
    static Child run(
            Path root, Map<String, String> environment, List<String> options, Class<?> main, String... arguments)
            throws Exception {
        return run(List.of(), root, environment, options, main, arguments);
    }

    /** The same behind {@code before}, such as a shell that sets limits. */
    static Child run(
            List<String> before,
            Path root,
            Map<String, String> environment,
            List<String> options,
            Class<?> main,
            String... arguments)
            throws Exception {
        List<String> command = new ArrayList<>(before);
        command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.add("-Dverbale.root=" + root);
        command.add("-Dverbale.module=.");
        command.addAll(options);
        command.addAll(List.of("-cp", System.getProperty("java.class.path"), main.getName()));
        command.addAll(List.of(arguments));
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true);
        builder.environment().putAll(environment);
        Process process = builder.start();
        CompletableFuture<String> output = CompletableFuture.supplyAsync(() -> {
            try {
                return new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            } catch (java.io.IOException gone) {
                return "";
            }
        });
        boolean ended = process.waitFor(120, TimeUnit.SECONDS);
        if (!ended) process.destroyForcibly();
        return new Child(ended ? process.exitValue() : -1, output.get());
    }
}
