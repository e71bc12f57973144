package dev.verbale.acceptance;

import dev.verbale.testing.Jvm;
import java.io.BufferedReader;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** A hub in a process of its own, as a team starts one, and its first token. */
final class HubProcess implements AutoCloseable {

    final String address;
    final String first;
    private final Process process;

    HubProcess(Path jar, Path folder) throws IOException {
        List<String> command = new ArrayList<>(Jvm.SHORT);
        command.add(0, Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.addAll(List.of("-jar", jar.toString(), "hub", "--port", "0", "--folder", folder.toString()));
        process = new ProcessBuilder(command).redirectErrorStream(true).start();
        BufferedReader lines = process.inputReader();
        address = lines.readLine().replaceFirst("The hub is at ", "");
        first = lines.readLine().replaceFirst("A token .*: ", "");
    }

    /** As whoever may do everything. */
    String ask(String method, String path, String... form) throws IOException, InterruptedException {
        var body = new StringBuilder();
        for (int i = 0; i < form.length; i += 2)
            body.append(body.isEmpty() ? "" : "&")
                    .append(form[i])
                    .append('=')
                    .append(URLEncoder.encode(form[i + 1], StandardCharsets.UTF_8));
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(address + path))
                                .header("Authorization", "Bearer " + first)
                                .header("Content-Type", "application/x-www-form-urlencoded")
                                .method(method, BodyPublishers.ofString(body.toString()))
                                .build(),
                        BodyHandlers.ofString())
                .body()
                .strip();
    }

    /** What a command needs to reach it as the holder of {@code token}. */
    Map<String, String> environment(String token) {
        return Map.of("VERBALE_HUB", address, "VERBALE_HUB_PROJECT", "orto", "VERBALE_HUB_TOKEN", token);
    }

    @Override
    public void close() {
        process.destroy();
        process.onExit().join();
    }
}
