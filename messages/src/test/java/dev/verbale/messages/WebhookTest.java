package dev.verbale.messages;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpServer;
import dev.verbale.json.JsonIn;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.core.JsonParser;

/** Messages to whatever takes JSON, and does not always. */
class WebhookTest {

    private static final Map<String, String> SECRET = Map.of("CHAT_TOKEN", "turnip-4711");

    @TempDir
    Path root;

    private final List<String> got = new CopyOnWriteArrayList<>();
    private final List<Integer> answers = new ArrayList<>();
    private HttpServer server;

    @BeforeEach
    void start() throws Exception {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", exchange -> {
            String body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
            got.add(exchange.getRequestURI() + " "
                    + exchange.getRequestHeaders().getFirst("Authorization") + " "
                    + exchange.getRequestHeaders().getFirst("Idempotency-Key") + " " + body);
            int answer = answers.isEmpty() ? 204 : answers.remove(0);
            byte[] text =
                    answer == 204 ? new byte[0] : ("no " + exchange.getRequestURI()).getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(answer, text.length == 0 ? -1 : text.length);
            exchange.getResponseBody().write(text);
            exchange.close();
        });
        server.start();
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private Webhook webhook(int seconds) {
        return new Webhook(
                        "http://127.0.0.1:" + server.getAddress().getPort() + "/hooks/{CHAT_TOKEN}",
                        SECRET,
                        Duration.ofSeconds(seconds))
                .header("Authorization: Bearer {CHAT_TOKEN}");
    }

    @Test
    void a_message_comes_with_what_was_filled_in_and_again_where_it_was_not_taken() throws Exception {
        answers.addAll(List.of(503, 429));

        webhook(20).send("{}".getBytes(StandardCharsets.UTF_8), "k1");

        assertThat(got).hasSize(3).allMatch(one -> one.equals("/hooks/turnip-4711 Bearer turnip-4711 k1 {}"));
    }

    @Test
    void what_is_refused_is_not_tried_again_and_no_secret_is_said() throws Exception {
        answers.add(403);
        assertThatThrownBy(() -> webhook(20).send(new byte[0], "k"))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("/hooks/{CHAT_TOKEN} answered 403 no /hooks/[masked]")
                .hasMessageNotContaining("turnip");
        assertThat(got).hasSize(1);
        answers.addAll(List.of(500, 500, 500, 500));
        assertThatThrownBy(() -> webhook(1).send(new byte[0], "k")).hasMessageContaining("answered 500");
        Webhook away = new Webhook("http://127.0.0.1:1/{CHAT_TOKEN}", SECRET, Duration.ZERO);
        assertThatThrownBy(() -> away.send(new byte[0], "k"))
                .hasMessageContaining("http://127.0.0.1:1/{CHAT_TOKEN} cannot be reached")
                .hasMessageNotContaining("turnip");
    }

    @Test
    void what_cannot_be_meant_is_refused_before_anything_is_sent() {
        assertThatThrownBy(() -> new Webhook("https://x.example/{OTHER}", SECRET, Duration.ZERO))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("the variable OTHER is not set");
        for (String wrong : List.of("file:///etc/hosts", "x", "http://{CHAT_TOKEN} y"))
            assertThatThrownBy(() -> new Webhook(wrong, SECRET, Duration.ZERO))
                    .isInstanceOf(IllegalArgumentException.class)
                    .hasMessageNotContaining("turnip");
        assertThatThrownBy(() -> webhook(1).header("nothing")).hasMessageContaining("is no header");
    }

    @ParameterizedTest
    @ValueSource(strings = {"plain", "text", "blocks", "card"})
    void each_template_gives_json_whatever_a_test_recorded(String template) throws Exception {
        String hostile = "\"}],{{x}} \\ \n\t<b> \u0000 \uD83C\uDF31 \uD800";
        byte[] message = MessageTemplate.of(template)
                .of(News.of(root.resolve("runs"), "night", hostile, "https://runs.orto.example/a?b=\"c"));

        try (JsonParser json = JsonIn.parser(message)) {
            json.nextToken();
            json.skipChildren();
            assertThat(json.nextToken()).isNull();
        }
        assertThat(new String(message, StandardCharsets.UTF_8)).contains("1 new failure", "runs.orto.example");
    }

    @Test
    void a_template_of_ones_own_is_used_and_what_is_wrong_with_it_is_said() throws Exception {
        RunNews news = News.of(root.resolve("runs"), "night", "weeds", null);
        Path own = Files.writeString(root.resolve("own.json"), "{\"summary\":\"{{line}}\",\"n\":{{tests}}}");
        assertThat(new String(MessageTemplate.of(own.toString()).of(news), StandardCharsets.UTF_8))
                .isEqualTo("{\"summary\":\"main: 1 new failure. 1 of 1 test did not pass\",\"n\":1}");

        Files.writeString(own, "{\"summary\": {{line}}}");
        assertThatThrownBy(() -> MessageTemplate.of(own.toString()).of(news))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("gives no JSON");
        Files.writeString(own, "{{#parts}}");
        assertThatThrownBy(() -> MessageTemplate.of(own.toString())).hasMessageContaining("is no template");
        assertThatThrownBy(() -> MessageTemplate.of("none.json"))
                .hasMessageContaining("name a file, or plain, text, blocks, card");
    }

    @Test
    void what_was_sent_is_known_afterwards() throws Exception {
        var sent = new SentMessages(root.resolve("sent"));
        String key = SentMessages.key("notify", "night", "https://x.example/{CHAT_TOKEN}");
        assertThat(sent.has(key)).isFalse();
        sent.add(key);
        assertThat(new SentMessages(root.resolve("sent")).has(key)).isTrue();
        assertThat(sent.has(SentMessages.key("notify", "night", "https://y.example")))
                .isFalse();
    }
}
