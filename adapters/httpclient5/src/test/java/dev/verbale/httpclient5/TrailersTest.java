package dev.verbale.httpclient5;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.InputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClientBuilder;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.HttpEntity;
import org.junit.jupiter.api.Test;

/** What comes behind a body is handed on as it is handed on bare. */
class TrailersTest {

    @Test
    void trailers_are_there_once_the_body_was_read() throws Exception {
        List<String> bare = trailers(HttpClients.custom());

        assertThat(trailers(VerbaleHttpClient5.watch(HttpClients.custom()))).isEqualTo(bare);
        assertThat(bare).contains("before: false", "X-Sum: 7");
    }

    private static List<String> trailers(HttpClientBuilder builder) throws Exception {
        try (var server = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());
                CloseableHttpClient client = builder.build()) {
            var answering = new Thread(() -> answer(server));
            answering.start();
            List<String> seen = client.execute(
                    new HttpGet("http://127.0.0.1:" + server.getLocalPort() + "/"),
                    response -> read(response.getEntity()));
            answering.join();
            return seen;
        }
    }

    private static List<String> read(HttpEntity entity) throws java.io.IOException {
        List<String> seen = new ArrayList<>();
        var trailers = entity.getTrailers();
        seen.add("before: " + (trailers == null));
        try (InputStream content = entity.getContent()) {
            seen.add(new String(content.readAllBytes(), StandardCharsets.UTF_8));
        }
        List<? extends Header> behind =
                entity.getTrailers() == null ? null : entity.getTrailers().get();
        if (behind != null) for (Header one : behind) seen.add(one.getName() + ": " + one.getValue());
        seen.add("names: " + entity.getTrailerNames());
        return seen;
    }

    private static void answer(ServerSocket server) {
        try (Socket client = server.accept()) {
            client.getInputStream().read(new byte[4_096]);
            client.getOutputStream()
                    .write(
                            "HTTP/1.1 200 OK\r\nTransfer-Encoding: chunked\r\nTrailer: X-Sum\r\n\r\n5\r\nbasil\r\n0\r\nX-Sum: 7\r\n\r\n"
                                    .getBytes(StandardCharsets.UTF_8));
            client.getOutputStream().flush();
        } catch (java.io.IOException gone) {
            throw new java.io.UncheckedIOException(gone);
        }
    }
}
