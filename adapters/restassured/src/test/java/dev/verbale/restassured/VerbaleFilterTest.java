package dev.verbale.restassured;

import static io.restassured.RestAssured.given;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.hamcrest.Matchers.equalTo;

import com.sun.net.httpserver.HttpServer;
import dev.verbale.event.ExchangeMade;
import dev.verbale.recorder.Ending;
import dev.verbale.recorder.Identity;
import dev.verbale.recorder.Recorder;
import dev.verbale.recorder.Scope;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInfo;

/** Exchanges of REST Assured over a real connection. */
class VerbaleFilterTest {

    private static HttpServer server;

    private final Recorder recorder = Recorder.current();
    private String key;
    private Scope test;

    @BeforeAll
    static void open_the_garden() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/seeds", exchange -> {
            exchange.getRequestBody().readAllBytes();
            byte[] body = "{\"seed\":\"Basil\",\"token\":\"t0ps3cret\"}".getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().add("Content-Type", "application/json");
            exchange.sendResponseHeaders(201, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        server.start();
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
    void an_exchange_is_told_and_the_test_reads_its_answer_as_before() throws Exception {
        given().filter(new VerbaleFilter())
                .header("Authorization", "Bearer t0ps3cret")
                .cookie("bed", "7")
                .contentType("application/json")
                .body("{\"neighbour\":\"Ada\",\"password\":\"hunter2\"}")
                .post(address())
                .then()
                .statusCode(201)
                .body("seed", equalTo("Basil"))
                .body("token", equalTo("t0ps3cret"));

        ExchangeMade made = exchanges().get(0);
        assertThat(made.client() + " " + made.method() + " " + made.url() + " " + made.status())
                .isEqualTo("REST Assured POST " + address() + " 201");
        assertThat(made.request().headers())
                .contains(
                        new ExchangeMade.Header("Authorization", "[masked]"),
                        new ExchangeMade.Header("Cookie", "[masked]"));
        assertThat(made.request().body().text()).isEqualTo("{\"neighbour\":\"Ada\",\"password\":\"[masked]\"}");
        assertThat(made.response().body().text()).isEqualTo("{\"seed\":\"Basil\",\"token\":\"[masked]\"}");
    }

    @Test
    void a_form_and_the_parts_of_an_upload_are_told() throws Exception {
        given().filter(new VerbaleFilter()).formParam("seed", "Kale").post(address());
        given().filter(new VerbaleFilter())
                .multiPart("plan", "plan.csv", "a,b".getBytes(StandardCharsets.UTF_8), "text/csv")
                .post(address());

        List<ExchangeMade> made = exchanges();
        assertThat(made.get(0).request().body().text()).isEqualTo("seed=Kale");
        assertThat(made.get(1).attributes()).containsEntry("part plan", "plan.csv, text/csv");
    }

    @Test
    void no_answer_is_told_and_thrown_as_it_was() throws Exception {
        assertThatThrownBy(() -> given().filter(new VerbaleFilter()).get("http://127.0.0.1:1/seeds"))
                .isInstanceOf(java.net.ConnectException.class);

        assertThat(exchanges().get(0).failure()).contains("ConnectException");
    }

    private static String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort() + "/seeds";
    }

    private List<ExchangeMade> exchanges() throws IOException {
        recorder.endTest(test, Ending.passed());
        return RunReader.read(Path.of(System.getProperty("verbale.root"))).tests().stream()
                .filter(one -> one.key().equals(key))
                .findFirst()
                .orElseThrow()
                .entries()
                .stream()
                .filter(Entry.ExchangeEntry.class::isInstance)
                .map(entry -> ((Entry.ExchangeEntry) entry).made())
                .toList();
    }
}
