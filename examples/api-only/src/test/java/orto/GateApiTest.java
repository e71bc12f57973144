package orto;

import static org.junit.jupiter.api.Assertions.assertEquals;

import dev.verbale.Verbale;
import dev.verbale.contract.OpenApiContract;
import dev.verbale.http.VerbaleHttp;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GateApiTest {

    private final HttpClient client = VerbaleHttp.watch(HttpClient.newHttpClient());
    private OpenApiContract contract;
    private Gate gate;

    @BeforeEach
    void starts_the_gate() throws Exception {
        contract = OpenApiContract.of(Path.of("src/test/contracts/gate.yaml"));
        gate = new Gate();
    }

    @AfterEach
    void stops_the_gate() {
        gate.close();
    }

    private HttpResponse<String> ask(String path) throws Exception {
        return client.send(HttpRequest.newBuilder(URI.create(gate.address() + path)).build(), BodyHandlers.ofString());
    }

    @Test
    void says_its_hours() throws Exception {
        contract.holds(ask("/hours"));
    }

    @ParameterizedTest
    @CsvSource({"summer, 7", "winter, 8", "autumn, 8"})
    void opens_by_season(String season, int hour) throws Exception {
        HttpResponse<String> response = Verbale.step("Ask for " + season, () -> ask("/hours/" + season));

        assertEquals(200, response.statusCode());
        assertEquals(String.valueOf(hour), response.body());
    }
}
