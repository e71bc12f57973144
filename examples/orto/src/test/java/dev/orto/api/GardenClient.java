package dev.orto.api;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.verbale.http.VerbaleHttp;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** The garden's API, as these tests speak to it. */
final class GardenClient {

    private static final Logger LOG = LoggerFactory.getLogger(GardenClient.class);
    private static final ObjectMapper JSON = new ObjectMapper();
    private static final Duration PATIENCE = Duration.ofSeconds(3);

    private final HttpClient http = VerbaleHttp.watch(HttpClient.newHttpClient());
    private final URI garden;

    GardenClient(URI garden) {
        this.garden = garden;
    }

    /** What came back. */
    record Reply(int status, JsonNode body) {
        String error() {
            return body.path("error").asText();
        }
    }

    Reply get(String path) throws Exception {
        return send("GET", path, HttpRequest.BodyPublishers.noBody());
    }

    Reply delete(String path) throws Exception {
        return send("DELETE", path, HttpRequest.BodyPublishers.noBody());
    }

    Reply post(String path, Map<String, ?> body) throws Exception {
        String json = JSON.writeValueAsString(body);
        return send("POST", path, HttpRequest.BodyPublishers.ofString(json));
    }

    private Reply send(String method, String path, HttpRequest.BodyPublisher body) throws Exception {
        var request = HttpRequest.newBuilder(garden.resolve(path))
                .timeout(PATIENCE)
                .header("Authorization", "Bearer garden-gate-7")
                .header("Content-Type", "application/json")
                .method(method, body)
                .build();
        HttpResponse<String> response = http.send(request, HttpResponse.BodyHandlers.ofString());
        LOG.info(
                "{} answered {} in {} characters",
                path,
                response.statusCode(),
                response.body().length());
        return new Reply(response.statusCode(), JSON.readTree(response.body()));
    }
}
