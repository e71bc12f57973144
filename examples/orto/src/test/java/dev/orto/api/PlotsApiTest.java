package dev.orto.api;

import static org.assertj.core.api.Assertions.assertThat;

import dev.orto.GardenServer;
import dev.verbale.Verbale;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Disabled;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

@Tag("api")
class PlotsApiTest {

    @RegisterExtension
    final GardenServer garden = new GardenServer();

    private GardenClient client;

    @BeforeEach
    void connect() {
        client = new GardenClient(garden.address());
    }

    @Test
    @Tag("smoke")
    void all_plots_are_listed() throws Exception {
        assertThat(client.get("/api/plots").body()).hasSize(6);
    }

    @ParameterizedTest(name = "plot {0} grows {2}")
    @CsvSource({"1, Ada, Runner beans", "3, Chiara, Tomatoes", "7, Elsa, Strawberries", "12, Ada, Herbs"})
    void a_plot_tells(int number, String keeper, String crop) throws Exception {
        var plot = client.get("/api/plots/" + number).body();

        Verbale.check("keeper", () -> assertThat(plot.path("keeper").asText()).isEqualTo(keeper));
        Verbale.check("crop", () -> assertThat(plot.path("crop").asText()).isEqualTo(crop));
    }

    @Test
    void many_neighbours_may_ask_at_once() {
        ExecutorService neighbours = Executors.newFixedThreadPool(3);
        try {
            Executor carried = Verbale.carry((Executor) neighbours); // what they record belongs to this test
            Verbale.step(
                    "Three neighbours look at their plots",
                    () -> CompletableFuture.allOf(Stream.of(1, 3, 7)
                                    .map(plot -> CompletableFuture.runAsync(() -> look(plot), carried))
                                    .toArray(CompletableFuture[]::new))
                            .join());
        } finally {
            neighbours.shutdown();
        }
    }

    private void look(int plot) {
        try {
            assertThat(client.get("/api/plots/" + plot).status()).isEqualTo(200);
        } catch (Exception failed) {
            throw new IllegalStateException("looking at plot " + plot, failed);
        }
    }

    @Test
    void an_unknown_plot_is_not_found() throws Exception {
        var response = client.get("/api/plots/4");

        assertThat(response.status()).isEqualTo(404);
        assertThat(response.error()).isEqualTo("There is no plot 4");
    }

    @ParameterizedTest(name = "\"{0}\" is no number")
    @ValueSource(strings = {"seven", "1.5"})
    void a_plot_number_is_checked(String number) throws Exception {
        assertThat(client.get("/api/plots/" + number).status()).isEqualTo(422);
    }

    @Test
    @Disabled("plots get a sun exposure next season")
    void a_plot_tells_its_hours_of_sun() throws Exception {
        assertThat(client.get("/api/plots/1").body().has("hoursOfSun")).isTrue();
    }
}
