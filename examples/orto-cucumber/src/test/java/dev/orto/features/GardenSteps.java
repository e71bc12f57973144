package dev.orto.features;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import dev.orto.GardenServer;
import dev.orto.web.Orto;
import dev.verbale.Verbale;
import dev.verbale.http.VerbaleHttp;
import io.cucumber.datatable.DataTable;
import io.cucumber.java.After;
import io.cucumber.java.en.Given;
import io.cucumber.java.en.Then;
import io.cucumber.java.en.When;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.util.Map;

/** What the sentences of the features do. */
public class GardenSteps {

    private static final ObjectMapper JSON = new ObjectMapper();

    private final HttpClient http = VerbaleHttp.watch(HttpClient.newHttpClient());
    private Orto garden;
    private JsonNode answer;

    @Given("the garden is open")
    public void theGardenIsOpen() {
        garden = GardenServer.open();
    }

    @After
    public void closes_the_garden() {
        if (garden != null) garden.close();
    }

    @Given("these neighbours water")
    public void theseNeighboursWater(DataTable rota) throws Exception {
        JsonNode days = get("/api/rota");
        for (Map<String, String> row : rota.asMaps())
            assertThat(days.path(row.get("day")).asText()).isEqualTo(row.get("neighbour"));
    }

    @When("{string} is swapped with {string}")
    public void isSwappedWith(String first, String second) throws Exception {
        answer = post("/api/rota/swaps", Map.of("first", first, "second", second));
    }

    @Then("{word} waters on {word}")
    public void watersOn(String neighbour, String day) throws Exception {
        String waters = Verbale.step(
                "Look at the rota", () -> get("/api/rota").path(day).asText());
        assertThat(waters).isEqualTo(neighbour);
    }

    @Then("the garden says")
    public void theGardenSays(String text) {
        assertThat(answer.path("error").asText()).isEqualTo(text);
    }

    @When("{word} takes the key")
    public void takesTheKey(String neighbour) throws Exception {
        answer = post("/api/shed/key", Map.of("neighbour", neighbour));
    }

    @When("the key is brought back")
    public void theKeyIsBroughtBack() throws Exception {
        answer = send("DELETE", "/api/shed/key", BodyPublishers.noBody());
    }

    @Then("the key is with {word}")
    public void theKeyIsWith(String neighbour) throws Exception {
        String holder = get("/api/shed/key").path("holder").asText();
        assertThat(holder.equals("null") ? "nobody" : holder).isEqualTo(neighbour);
    }

    @Then("the key hangs on its hook")
    public void theKeyHangsOnItsHook() throws Exception {
        theKeyIsWith("nobody");
    }

    private JsonNode get(String path) throws Exception {
        return send("GET", path, BodyPublishers.noBody());
    }

    private JsonNode post(String path, Map<String, ?> body) throws Exception {
        return send("POST", path, BodyPublishers.ofString(JSON.writeValueAsString(body)));
    }

    private JsonNode send(String method, String path, BodyPublisher body) throws Exception {
        var request = HttpRequest.newBuilder(garden.address().resolve(path))
                .header("Content-Type", "application/json")
                .method(method, body)
                .build();
        String response = http.send(request, BodyHandlers.ofString()).body();
        return response.isEmpty() ? JSON.nullNode() : JSON.readTree(response);
    }
}
