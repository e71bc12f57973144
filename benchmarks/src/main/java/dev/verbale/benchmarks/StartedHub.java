package dev.verbale.benchmarks;

import java.io.BufferedReader;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;

/** A hub in a process of its own, with a folder, and a token that may do everything. */
final class StartedHub implements AutoCloseable {

    static final String PROJECT = "load";

    final URI address;
    private final String administer = "a-token-for-benchmarks-alone";
    private final Process process;
    private final HttpClient client = HttpClient.newHttpClient();

    /** @param more what else it is started with, such as {@code --database URL} */
    StartedHub(Path folder, List<String> more) throws IOException {
        List<String> command = new ArrayList<>(
                List.of("java", "-jar", jar().toString(), "hub", "--port", "0", "--folder", folder.toString()));
        command.addAll(more);
        var builder = new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.INHERIT);
        builder.environment().put("VERBALE_HUB_TOKEN", administer);
        process = builder.start();
        BufferedReader lines = process.inputReader(StandardCharsets.UTF_8);
        address = URI.create(lines.readLine().replaceFirst("The hub is at ", ""));
    }

    /** Of the command line, from the project's folder or from this module's. */
    static Path jar() {
        Path jar = Path.of("cli", "target", "verbale.jar");
        return Files.exists(jar) ? jar : Path.of("..").resolve(jar);
    }

    /** A token of the project with that role. */
    String token(String role) throws IOException, InterruptedException {
        return ask("POST", "api/v1/tokens?project=" + PROJECT + "&role=" + role + "&label=" + role)
                .strip();
    }

    String ask(String method, String path) throws IOException, InterruptedException {
        return client.send(
                        HttpRequest.newBuilder(address.resolve(path))
                                .header("Authorization", "Bearer " + administer)
                                .method(method, BodyPublishers.noBody())
                                .build(),
                        BodyHandlers.ofString())
                .body();
    }

    /** How much processor it has had. */
    Duration cpu() {
        return process.toHandle().info().totalCpuDuration().orElse(Duration.ZERO);
    }

    @Override
    public void close() {
        process.destroy();
        process.onExit().join();
    }
}
