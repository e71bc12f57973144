package dev.orto.api;

import dev.orto.GardenServer;
import dev.verbale.contract.OpenApiContract;
import dev.verbale.http.VerbaleHttp;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** What the garden promised to those who use its API. */
@Tag("api")
class PlotsContractTest {

    @RegisterExtension
    final GardenServer garden = new GardenServer();

    private final HttpClient http = VerbaleHttp.watch(HttpClient.newHttpClient());

    @Test
    void a_plot_is_as_the_contract_says() throws Exception {
        check("/api/plots/7");
    }

    @Test
    void so_is_the_response_for_a_plot_that_is_none() throws Exception {
        check("/api/plots/4");
    }

    private void check(String path) throws Exception {
        OpenApiContract contract = OpenApiContract.of(PlotsContractTest.class.getResource("orto.yaml"));
        var request = HttpRequest.newBuilder(garden.address().resolve(path)).build();

        contract.holds(http.send(request, BodyHandlers.ofString()));
    }
}
