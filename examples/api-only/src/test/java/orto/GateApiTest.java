package orto;

import static org.junit.jupiter.api.Assertions.assertEquals;

import com.sun.net.httpserver.HttpServer;
import dev.verbale.http.VerbaleHttp;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class GateApiTest {

    private final HttpClient client = VerbaleHttp.watch(HttpClient.newHttpClient());
    private HttpServer gate;

    @BeforeEach
    void starts_the_gate() throws Exception {
        gate = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        gate.createContext("/hours", exchange -> {
            byte[] hours = "{\"summer\":7,\"winter\":8,\"token\":\"seeds-4711\"}".getBytes();
            exchange.getResponseHeaders().add("Content-Type", "application/json");
            exchange.sendResponseHeaders(200, hours.length);
            exchange.getResponseBody().write(hours);
            exchange.close();
        });
        gate.start();
    }

    @AfterEach
    void stops_the_gate() {
        gate.stop(0);
    }

    @Test
    void says_its_hours() throws Exception {
        var hours = URI.create("http://localhost:" + gate.getAddress().getPort() + "/hours");
        var response = client.send(HttpRequest.newBuilder(hours).build(), BodyHandlers.ofString());
        assertEquals(200, response.statusCode());
        assertEquals("application/hal+json", response.headers().firstValue("Content-Type").orElse(""));
    }
}
