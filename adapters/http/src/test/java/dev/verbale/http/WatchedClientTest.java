package dev.verbale.http;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import dev.verbale.event.ExchangeMade;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.net.http.WebSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Base64;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** The JDK's client. */
@Tag("newer-jdk")
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
        client.sendAsync(request("GET", GARDEN.address("/image"), Map.of(), new byte[0]), BodyHandlers.ofByteArray())
                .join();

        List<ExchangeMade> made = GARDEN.exchanges();
        assertThat(made.get(0).attributes()).containsEntry("body", "the test read no further");
        assertThat(made.get(1).status()).isEqualTo(200);
    }

    @Test
    void redirects_stand_in_their_order_with_their_bodies_and_no_made_up_times() throws Exception {
        byte[] answer =
                send("POST", GARDEN.address("/moved"), Map.of("Content-Type", "text/plain"), "seven".getBytes(UTF_8));

        List<ExchangeMade> made = GARDEN.exchanges();
        assertThat(new String(answer, UTF_8)).contains("Basil");
        assertThat(made).extracting(GARDEN::line).containsExactly("POST /moved 302", "GET /json 201");
        assertThat(made.get(0).request().body().text()).isEqualTo("seven");
        assertThat(made.get(1).request().body()).isNull();
        assertThat(made).allMatch(one -> one.timing().micros() == null);
        assertThat(made.get(1).response().body().text()).contains("Basil");
    }

    /** Two hundred times, for what comes of it underneath may come before it. */
    @Test
    void what_is_cancelled_says_so_each_time_and_so_does_what_is_derived_from_it() throws Exception {
        try (var silent = new ServerSocket(0, 500, java.net.InetAddress.getLoopbackAddress())) {
            HttpRequest request = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + silent.getLocalPort() + "/"))
                    .build();
            for (int i = 0; i < 200; i++) {
                CompletableFuture<HttpResponse<String>> never = client.sendAsync(request, BodyHandlers.ofString());
                CompletableFuture<Integer> derived = never.thenApply(HttpResponse::statusCode);

                assertThat((i % 2 == 0 ? never : derived).cancel(true)).isTrue();

                assertThat((i % 2 == 0 ? never : derived).isCancelled()).isTrue();
                assertThatThrownBy(never::join).isInstanceOfAny(CancellationException.class, CompletionException.class);
            }
        }
    }

    @Test
    void what_is_cancelled_is_cancelled_and_told() throws Exception {
        var asked = client.sendAsync(
                request("GET", GARDEN.address("/long"), Map.of(), new byte[0]), BodyHandlers.ofInputStream());
        InputStream stream = asked.join().body();
        assertThat(stream.read()).isPositive();
        stream.close();
        var never = client.sendAsync(
                request("GET", GARDEN.address("/image"), Map.of(), new byte[0]), BodyHandlers.ofByteArray());
        boolean cancelled = never.cancel(true);

        // the response may come in between: then the JDK's client says that it could be cancelled, and it was not
        if (never.isCancelled()) assertThat(cancelled).isTrue();
        assertThat(GARDEN.exchanges()).hasSize(2);
    }

    /** On a newer JDK where there is one beside this: what it calls came after the version that this is compiled for. */
    @Test
    void a_watched_client_is_shut_down_as_the_bare_one() throws Exception {
        Path java = newerJava();
        assumeTrue(java != null, "no JDK of 21 or newer is here");
        Process run = new ProcessBuilder(
                        java.toString(),
                        "-cp",
                        System.getProperty("java.class.path"),
                        "-Dverbale.root=" + System.getProperty("verbale.root") + "-of-a-life-cycle",
                        "-Dverbale.summary-line=false",
                        LifeCycle.class.getName())
                .redirectErrorStream(true)
                .start();

        assertThat(new String(run.getInputStream().readAllBytes(), UTF_8).strip())
                .isEqualTo("same: false true true");
    }

    private static Path newerJava() throws IOException {
        if (Runtime.version().feature() >= 21) return Path.of(System.getProperty("java.home"), "bin", "java");
        Path all = Path.of("/usr/lib/jvm");
        if (!Files.isDirectory(all)) return null;
        try (var homes = Files.list(all)) {
            return homes.filter(home -> home.getFileName().toString().matches(".*\\b(2[1-9]|[3-9]\\d)\\b.*"))
                    .map(home -> home.resolve("bin/java"))
                    .filter(Files::isExecutable)
                    .findFirst()
                    .orElse(null);
        }
    }

    @Test
    void a_web_socket_is_opened_as_before() throws Exception {
        try (var server = new ServerSocket(0)) {
            var serving = new Thread(() -> greet(server));
            serving.start();
            var captured = new CompletableFuture<String>();
            WebSocket socket = client.newWebSocketBuilder()
                    .buildAsync(URI.create("ws://127.0.0.1:" + server.getLocalPort() + "/"), new WebSocket.Listener() {
                        @Override
                        public CompletionStage<?> onText(WebSocket from, CharSequence text, boolean last) {
                            captured.complete(text.toString());
                            return null;
                        }
                    })
                    .get(10, TimeUnit.SECONDS);

            assertThat(captured.get(10, TimeUnit.SECONDS)).isEqualTo("rain");
            socket.abort();
            serving.join();
        }
    }

    /** Shakes hands as RFC 6455 has it, and says one word. */
    private static void greet(ServerSocket server) {
        try (var socket = server.accept()) {
            var in = new BufferedReader(new InputStreamReader(socket.getInputStream(), UTF_8));
            String key = "";
            for (String line = in.readLine(); line != null && !line.isEmpty(); line = in.readLine())
                if (line.toLowerCase(Locale.ROOT).startsWith("sec-websocket-key:"))
                    key = line.substring(line.indexOf(':') + 1).strip();
            byte[] hash = MessageDigest.getInstance("SHA-1")
                    .digest((key + "258EAFA5-E914-47DA-95CA-C5AB0DC85B11").getBytes(UTF_8));
            socket.getOutputStream()
                    .write(("HTTP/1.1 101 Switching Protocols\r\nUpgrade: websocket\r\n"
                                    + "Connection: Upgrade\r\nSec-WebSocket-Accept: "
                                    + Base64.getEncoder().encodeToString(hash) + "\r\n\r\n")
                            .getBytes(UTF_8));
            socket.getOutputStream().write(new byte[] {(byte) 0x81, 4, 'r', 'a', 'i', 'n'});
            socket.getOutputStream().flush();
            in.read();
        } catch (IOException | NoSuchAlgorithmException over) {
            return;
        }
    }
}
