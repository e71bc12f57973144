package dev.orto.api;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import dev.orto.GardenServer;
import dev.verbale.Verbale;
import java.time.Duration;
import java.time.LocalDate;
import java.time.Month;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

@Tag("api")
class CompostApiTest {

    @RegisterExtension
    final GardenServer garden = new GardenServer();

    private GardenClient client;

    @BeforeEach
    void connect() {
        client = new GardenClient(garden.address());
    }

    @Test
    void the_history_begins_with_the_latest_day() throws Exception {
        assertThat(client.get("/api/compost").body().path(0).path("day").asInt())
                .isEqualTo(12);
    }

    @Test
    @Tag("smoke")
    void three_warm_days_in_a_row_make_it_hot() throws Exception {
        assertThat(client.get("/api/compost/state").body().path("hot").asBoolean())
                .isTrue();
    }

    @Test
    void a_reading_is_kept() throws Exception {
        var response = client.post("/api/compost", Map.of("day", 13, "celsius", 36.5));
        Verbale.step("Ask again at once", Duration.ofMillis(1), () -> {
            client.get("/api/compost/state");
        });
        Verbale.skip("Compare with the thermometer in the shed", "nobody is in the shed");

        assertThat(response.status()).isEqualTo(201);
        assertThat(response.body().path("celsius").asDouble()).isEqualTo(36.5);
    }

    @ParameterizedTest(name = "{0} °C")
    @ValueSource(doubles = {-40, 90.5, 451})
    void an_impossible_temperature_is_refused(double celsius) throws Exception {
        var response = client.post("/api/compost", Map.of("day", 13, "celsius", celsius));

        assertThat(response.status()).isEqualTo(422);
    }

    @Test
    @DisplayName("frost is told apart from a broken probe")
    void frost() {
        assumeTrue(
                LocalDate.now().getMonth() == Month.JANUARY && Boolean.getBoolean("orto.frost"),
                "needs a frosty night");
    }
}
