package dev.orto.api;

import static org.assertj.core.api.Assertions.assertThat;

import dev.orto.GardenServer;
import dev.verbale.ExpectedFailure;
import dev.verbale.Verbale;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.TestReporter;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

@Tag("api")
@Tag("seeds")
class SeedsApiTest {

    @RegisterExtension
    final GardenServer garden = new GardenServer();

    private GardenClient client;

    @BeforeEach
    void connect() {
        client = new GardenClient(garden.address());
    }

    @ParameterizedTest(name = "{0}, {1} before and {2} after")
    @CsvSource({"Basil, 4, 3", "Borage, 2, 1", "Kale, 1, 0"})
    void a_loan_takes_one_sachet(String seed, int before, int after) throws Exception {
        assertThat(sachets(seed)).isEqualTo(before);

        Verbale.step("Chiara borrows " + seed, () -> lend(seed, "Chiara"));

        assertThat(sachets(seed)).as("sachets of %s left", seed).isEqualTo(after);
    }

    @Test
    void nothing_is_lent_when_nothing_is_left(TestReporter reporter) throws Exception {
        var response = lend("Marigold", "Dario");
        reporter.publishEntry("status", String.valueOf(response.status()));

        assertThat(response.status()).isEqualTo(409);
        assertThat(response.error()).isEqualTo("No sachet of Marigold is left");
    }

    @Test
    void a_loan_that_comes_back_is_on_the_shelf_again() throws Exception {
        lend("Basil", "Elsa");

        client.delete("/api/seeds/Basil/loans/Elsa");

        assertThat(sachets("Basil")).isEqualTo(4);
    }

    @Test
    void only_a_borrower_can_bring_back() throws Exception {
        assertThat(client.delete("/api/seeds/Basil/loans/Bruno").error()).isEqualTo("Bruno has not borrowed Basil");
    }

    @Test
    @ExpectedFailure(value = "names are compared with their capitals", link = "GARDEN-17")
    void capitals_do_not_matter_when_bringing_back() throws Exception {
        lend("Basil", "Elsa");

        assertThat(client.delete("/api/seeds/Basil/loans/elsa").status()).isEqualTo(200);
    }

    @Test
    void the_borrower_must_have_a_name() throws Exception {
        assertThat(lend("Basil", " ").status()).isEqualTo(422);
    }

    @TestFactory
    Stream<DynamicTest> every_seed_has_a_page_of_its_own() {
        return Stream.of("Basil", "Borage", "Kale", "Marigold")
                .map(seed -> DynamicTest.dynamicTest(
                        seed,
                        () -> assertThat(client.get("/api/seeds/" + seed)
                                        .body()
                                        .path("seed")
                                        .asText())
                                .isEqualTo(seed)));
    }

    private GardenClient.Reply lend(String seed, String neighbour) throws Exception {
        return client.post("/api/seeds/" + seed + "/loans", Map.of("neighbour", neighbour));
    }

    private int sachets(String seed) throws Exception {
        return client.get("/api/seeds/" + seed).body().path("sachets").asInt();
    }
}
