package dev.verbale.http;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import dev.verbale.Verbale;
import dev.verbale.event.ExchangeMade;
import dev.verbale.recorder.Ending;
import dev.verbale.recorder.Identity;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** Exchanges over a real connection. */
class WatchedClientTest {

    private static HttpServer server;

    private final Recorder recorder = Recorder.current();
    private final HttpClient client = VerbaleHttp.watch(
            HttpClient.newBuilder().followRedirects(HttpClient.Redirect.NORMAL).build());
    private String key;
    private Scope test;

    @BeforeAll
    static void open_the_garden() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext(
                "/json", e -> answer(e, 201, "application/json", "{\"seed\":\"Basil\",\"token\":\"t0ps3cret\"}"));
        server.createContext("/moved", e -> {
            e.getResponseHeaders().add("Location", "/json");
            e.sendResponseHeaders(302, -1);
            e.close();
        });
        server.createContext("/packed", e -> {
            var packed = new ByteArrayOutputStream();
            try (var gzip = new GZIPOutputStream(packed)) {
                gzip.write("Basil ".repeat(1_000).getBytes(StandardCharsets.UTF_8));
            }
            e.getResponseHeaders().add("Content-Type", "text/plain");
            e.getResponseHeaders().add("Content-Encoding", "gzip");
            e.sendResponseHeaders(200, packed.size());
            e.getResponseBody().write(packed.toByteArray());
            e.close();
        });
        server.createContext("/picture", e -> {
            e.getResponseHeaders().add("Content-Type", "image/png");
            e.sendResponseHeaders(200, 4);
            e.getResponseBody().write(new byte[] {(byte) 0x89, 'P', 'N', 'G'});
            e.close();
        });
        server.createContext("/cut", e -> {
            e.getResponseHeaders().add("Content-Type", "text/plain");
            e.sendResponseHeaders(200, 1_000);
            e.getResponseBody().write("only this".getBytes(StandardCharsets.UTF_8));
            e.getResponseBody().flush();
            e.close();
        });
        server.createContext("/long", e -> {
            e.getResponseHeaders().add("Content-Type", "text/plain");
            e.sendResponseHeaders(200, 0);
            for (int i = 0; i < 300; i++)
                e.getResponseBody().write("x".repeat(10_000).getBytes(StandardCharsets.UTF_8));
            e.close();
        });
        server.start();
    }

    private static void answer(HttpExchange exchange, int status, String type, String body) throws IOException {
        exchange.getRequestBody().readAllBytes();
        exchange.getResponseHeaders().add("Content-Type", type);
        exchange.getResponseHeaders().add("Set-Cookie", "sid=s3cr3t");
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(status, bytes.length);
        exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    @AfterAll
    static void close_the_garden() {
        server.stop(0);
    }

    @BeforeEach
    void begin(TestInfo info) {
        key = info.getTestMethod().orElseThrow().getName();
        test = recorder.startTest(recorder.run(), new Identity(key, key, "sample.Api", key, List.of()));
    }

    @Test
    void an_exchange_is_on_its_step_with_both_sides_and_its_secrets_masked() throws Exception {
        String body = Verbale.step("Borrow", () -> client.send(
                        request("/json?api_key=k3y")
                                .header("Authorization", "Bearer t0ps3cret")
                                .header("Content-Type", "application/json")
                                .POST(HttpRequest.BodyPublishers.ofString(
                                        "{\"neighbour\":\"Ada\",\"password\":\"hunter2\"}"))
                                .build(),
                        BodyHandlers.ofString())
                .body());

        ExchangeMade made = exchanges().get(0);
        assertThat(body).as("the test reads it whole").contains("t0ps3cret");
        assertThat(made.client()).isEqualTo("JDK HttpClient");
        assertThat(made.method() + " " + made.url()).isEqualTo("POST " + address("/json?api_key=[masked]"));
        assertThat(made.status()).isEqualTo(201);
        assertThat(made.request().headers()).contains(new ExchangeMade.Header("Authorization", "[masked]"));
        assertThat(made.request().body().text()).isEqualTo("{\"neighbour\":\"Ada\",\"password\":\"[masked]\"}");
        assertThat(made.response().body().text()).isEqualTo("{\"seed\":\"Basil\",\"token\":\"[masked]\"}");
        assertThat(made.response().headers())
                .anyMatch(h -> h.name().equals("set-cookie") && h.value().equals("[masked]"));
        assertThat(made.micros()).isPositive();
        assertThat(made.timings()).containsKey("first byte");
    }

    @Test
    void redirects_are_lines_of_their_own() throws Exception {
        client.send(request("/moved").build(), BodyHandlers.discarding());

        assertThat(exchanges())
                .extracting(one -> one.status() + " " + one.url())
                .containsExactlyInAnyOrder("201 " + address("/moved"), "302 " + address("/moved"));
    }

    @Test
    void what_is_packed_is_read_and_what_is_no_text_is_a_file() throws Exception {
        byte[] packed = client.send(request("/packed").build(), BodyHandlers.ofByteArray())
                .body();
        client.sendAsync(request("/picture").build(), BodyHandlers.ofByteArray())
                .join();

        List<ExchangeMade> made = exchanges();
        assertThat(made.get(0).response().body().size()).isEqualTo(packed.length);
        assertThat(made.get(0).response().body().decoded()).isEqualTo(6_000);
        assertThat(made.get(0).response().body().text()).startsWith("Basil Basil");
        Path file = recorder.folder().resolve(made.get(1).response().body().file());
        assertThat(Files.readAllBytes(file)).startsWith(0x89);
    }

    @Test
    void a_long_body_is_kept_in_its_beginning_and_a_stream_is_the_tests_to_leave() throws Exception {
        try (InputStream stream = client.send(request("/long").build(), BodyHandlers.ofInputStream())
                .body()) {
            assertThat(stream.readNBytes(10)).hasSize(10);
        }
        byte[] whole = client.send(request("/long").build(), BodyHandlers.ofByteArray())
                .body();

        List<ExchangeMade> made = exchanges();
        assertThat(whole).hasSize(3_000_000);
        assertThat(made.get(0).attributes()).containsEntry("body", "the test read no further");
        assertThat(made.get(1).response().body().size()).isEqualTo(3_000_000);
        assertThat(made.get(1).response().body().isCut()).isTrue();
        assertThat(made.get(1).response().body().text()).hasSize(20_000);
    }

    @Test
    void no_answer_and_half_an_answer_are_told() throws Exception {
        assertThatThrownBy(() -> client.send(request("/cut").build(), BodyHandlers.ofString()))
                .isInstanceOf(IOException.class);
        assertThatThrownBy(() -> client.send(
                        HttpRequest.newBuilder(URI.create("http://127.0.0.1:1/"))
                                .build(),
                        BodyHandlers.ofString()))
                .isInstanceOf(IOException.class);

        List<ExchangeMade> made = exchanges();
        assertThat(made.get(0).status()).isEqualTo(200);
        assertThat(made.get(0).response().body().text()).isEqualTo("only this");
        assertThat(made.get(0).failure()).isNotNull();
        assertThat(made.get(1).response()).isNull();
        assertThat(made.get(1).failure()).contains("ConnectException");
    }

    private static HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(URI.create(address(path)));
    }

    private static String address(String path) {
        return "http://127.0.0.1:" + server.getAddress().getPort() + path;
    }

    private List<ExchangeMade> exchanges() throws IOException {
        recorder.endTest(test, Ending.passed());
        List<Entry> entries = RunReader.read(Path.of(System.getProperty("verbale.root"))).tests().stream()
                .filter(one -> one.key().equals(key))
                .findFirst()
                .orElseThrow()
                .entries();
        return entries.stream()
                .flatMap(entry -> entry instanceof Entry.StepEntry step
                        ? step.entries().stream()
                        : java.util.stream.Stream.of(entry))
                .filter(Entry.ExchangeEntry.class::isInstance)
                .map(entry -> ((Entry.ExchangeEntry) entry).made())
                .toList();
    }
}
