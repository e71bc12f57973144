package dev.verbale.contract;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import dev.verbale.http.Garden;
import dev.verbale.http.VerbaleHttp;
import dev.verbale.results.Entry;
import dev.verbale.spi.AdapterRecorder;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;

/** Answers against their contracts. */
class ContractTest {

    private static final String JSON = "application/json; charset=utf-8";

    @RegisterExtension
    static final Garden GARDEN = Garden.open();

    private final OpenApiContract garden = read();

    private static OpenApiContract read() {
        try {
            return OpenApiContract.of(Path.of("src/test/contracts/orto.yaml"));
        } catch (IOException failed) {
            throw new java.io.UncheckedIOException(failed);
        }
    }

    @Test
    void a_response_that_is_as_the_document_says_passes_whatever_path_its_server_has() throws Exception {
        garden.holds(
                "GET", "https://orto.example/garden/api/plots/7?year=2026", 200, JSON, "{\"number\":7,\"crop\":null}");
        garden.holds("GET", "/garden/api/plots/free", 200, JSON, "3");
        garden.holds("GET", "/garden/api/plots/99", 404, "application/problem+json", "{\"reason\":\"no such plot\"}");
        garden.holds("DELETE", "/garden/api/plots/7", 204, "", "");

        assertThat(checks())
                .containsExactly(
                        "passed contract of GET /api/plots/{number} 200",
                        "passed contract of GET /api/plots/free 200",
                        "passed contract of GET /api/plots/{number} 404",
                        "passed contract of DELETE /api/plots/{number} 204");
    }

    private static dev.verbale.results.Run run() throws IOException {
        return dev.verbale.results.RunReader.read(Path.of(System.getProperty("verbale.root")));
    }

    @Test
    void the_document_is_attached_to_the_run_once() throws Exception {
        garden.holds("GET", "/garden/api/plots/free", 200, JSON, "3");
        read().servedAt("/elsewhere").holds("GET", "/elsewhere/api/plots/free", 200, JSON, "3");

        assertThat(run().entries())
                .filteredOn(Entry.AttachmentEntry.class::isInstance)
                .extracting(entry -> (Entry.AttachmentEntry) entry)
                .filteredOn(one ->
                        one.name().equals("Orto 1") && one.stored().mediaType().equals("application/openapi+json"))
                .singleElement()
                .satisfies(one -> assertThat(one.file()).content().contains("/api/plots/free"));
    }

    @Test
    void violations_are_checks_with_their_paths_and_fail_the_test() throws Exception {
        String body = "{\"number\":\"seven\",\"beds\":[{\"metres\":2},{\"metres\":-1}]}";
        ContractViolated violated = catchThrowableOfType(
                ContractViolated.class, () -> garden.holds("GET", "/garden/api/plots/7", 200, JSON, body));

        assertThat(violated.violations())
                .hasSize(3)
                .anyMatch(one -> one.startsWith("/number: ") && one.contains("integer") && one.endsWith(": \"seven\""))
                .anyMatch(one -> one.startsWith("/beds/1/metres: "))
                .anyMatch(one -> one.contains("crop"));
        assertThat(checks())
                .hasSize(3)
                .allMatch(one -> one.startsWith("failed contract of GET /api/plots/{number} 200 at /"));
    }

    @Test
    void the_value_that_was_found_is_named_and_no_secret_is_at_whatever_depth(@TempDir Path folder) throws Exception {
        Path file = folder.resolve("secrets.schema.json");
        Files.writeString(file, """
                {"properties": {"password": {"type": "number"}, "crop": {"type": "number"},
                  "token": {"properties": {"value": {"type": "number"}}}}}
                """);
        JsonSchemaContract contract = JsonSchemaContract.of(file);

        ContractViolated violated = catchThrowableOfType(
                ContractViolated.class,
                () -> contract.holds(
                        "a neighbour",
                        "{\"password\":\"t0ps3cret\",\"crop\":\"Kale\",\"token\":{\"value\":\"h1dden\"}}"));

        assertThat(violated.violations())
                .hasSize(3)
                .anyMatch(one -> one.startsWith("/crop: ") && one.endsWith(": \"Kale\""))
                .noneMatch(one -> one.contains("t0ps3cret") || one.contains("h1dden"));
    }

    @Test
    void failed_checks_are_gathered_where_somebody_does() {
        AdapterRecorder.current().gatherChecks();
        garden.holds("GET", "/garden/api/plots/7", 200, JSON, "{}");
        garden.holds("GET", "/garden/api/plots/7", 200, JSON, "{\"number\":7,\"crop\":\"Kale\"}");

        String many =
                "{\"number\":1,\"crop\":\"Kale\",\"beds\":[" + "{\"metres\":-1},".repeat(29) + "{\"metres\":-1}]}";
        garden.holds("GET", "/garden/api/plots/7", 200, JSON, many);

        assertThat(AdapterRecorder.current().failedChecks())
                .hasMessageContaining("/beds/24/metres")
                .hasMessageContaining("and 5 violations more");
        assertThat(AdapterRecorder.current().failedChecks())
                .hasMessageContaining("number")
                .hasMessageContaining("crop");
    }

    @Test
    void what_the_document_does_not_know_is_a_violation_that_says_what_it_knows() {
        assertThatThrownBy(() -> garden.holds("PUT", "/garden/api/plots/7", 200, JSON, "{}"))
                .hasMessageContaining("PUT /garden/api/plots/7")
                .hasMessageContaining("no such path or method");
        assertThatThrownBy(() -> garden.holds("GET", "/garden/api/plots/7", 500, JSON, "{}"))
                .hasMessageContaining("no status 500, only 200, 4XX");
        assertThatThrownBy(() -> garden.holds("GET", "/garden/api/plots/7", 200, "text/html", "<html>"))
                .hasMessageContaining("'text/html', the contract has application/json");
        assertThatThrownBy(() -> garden.holds("GET", "/garden/api/plots/7", 200, JSON, "<html>"))
                .hasMessageContaining("not JSON");
    }

    @Test
    void a_response_of_the_jdks_client_is_taken_as_it_is_and_counts_for_its_exchange() throws Exception {
        HttpClient client = VerbaleHttp.watch(HttpClient.newHttpClient());
        var answer = client.send(
                HttpRequest.newBuilder(URI.create(GARDEN.address("/json"))).build(), BodyHandlers.ofString());
        assertThatThrownBy(() -> garden.holds(answer)).hasMessageContaining("GET /json");
        JsonSchemaContract seed = JsonSchemaContract.of(Path.of("src/test/contracts/plot.schema.json"));
        assertThatThrownBy(() -> seed.holds("seed", answer.body())).hasMessageContaining("crop");
        assertThatCode(() -> seed.holds("plot", "{\"number\":1,\"crop\":\"Basil\"}"))
                .doesNotThrowAnyException();

        var checks = dev.verbale.results.ExchangeChecks.of(GARDEN.test());
        assertThat(checks.values()).hasSize(1);
        assertThat(checks.values().iterator().next()).hasSize(4);
    }

    @Test
    void a_file_that_is_no_contract_is_named(@TempDir Path folder) throws Exception {
        Path file = Files.writeString(folder.resolve("orto.yaml"), "swagger: '2.0'\n");
        assertThatThrownBy(() -> OpenApiContract.of(file))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("orto.yaml")
                .hasMessageContaining("OpenAPI document of 3.0 or 3.1");
        Path broken = Files.writeString(folder.resolve("plot.json"), "{");
        assertThatThrownBy(() -> JsonSchemaContract.of(broken)).hasMessageContaining("plot.json cannot be read");
    }

    private static List<String> checks() throws IOException {
        return GARDEN.test().entries().stream()
                .filter(Entry.CheckEntry.class::isInstance)
                .map(entry -> (Entry.CheckEntry) entry)
                .map(check -> check.outcome().word() + " " + check.name())
                .toList();
    }
}
