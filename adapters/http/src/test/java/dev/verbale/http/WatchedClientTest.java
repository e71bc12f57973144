package dev.verbale.http;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.ExchangeMade;
import java.io.InputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** The JDK's client. */
class WatchedClientTest extends ExchangeContract {

    private final HttpClient client = VerbaleHttp.watch(
            HttpClient.newBuilder().followRedirects(HttpClient.Redirect.NORMAL).build());

    @Override
    protected String client() {
        return "JDK HttpClient";
    }

    @Override
    protected byte[] send(String method, String url, Map<String, String> headers, byte[] body) throws Exception {
        return client.send(request(method, url, headers, body), BodyHandlers.ofByteArray())
                .body();
    }

    private static HttpRequest request(String method, String url, Map<String, String> headers, byte[] body) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(url))
                .method(method, body.length == 0 ? BodyPublishers.noBody() : BodyPublishers.ofByteArray(body));
        headers.forEach(request::header);
        return request.build();
    }

    @Test
    void a_stream_is_the_tests_to_leave_and_a_call_may_be_answered_on_another_thread() throws Exception {
        HttpRequest asks = request("GET", GARDEN.address("/long"), Map.of(), new byte[0]);
        try (InputStream stream =
                client.send(asks, BodyHandlers.ofInputStream()).body()) {
            assertThat(stream.readNBytes(10)).hasSize(10);
        }
        client.sendAsync(request("GET", GARDEN.address("/picture"), Map.of(), new byte[0]), BodyHandlers.ofByteArray())
                .join();

        List<ExchangeMade> made = GARDEN.exchanges();
        assertThat(made.get(0).attributes()).containsEntry("body", "the test read no further");
        assertThat(made.get(1).status()).isEqualTo(200);
    }
}
