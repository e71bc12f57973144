package dev.orto.api;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;

import com.fasterxml.jackson.databind.JsonNode;
import dev.orto.GardenServer;
import dev.verbale.MediaType;
import dev.verbale.Verbale;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Nested;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

@Tag("api")
@DisplayName("Watering rota API")
class RotaApiTest {

    @RegisterExtension
    final GardenServer garden = new GardenServer();

    private GardenClient client;

    @BeforeEach
    void connect() {
        client = new GardenClient(garden.address());
    }

    @Test
    @Tag("smoke")
    void every_day_has_a_neighbour() throws Exception {
        assertThat(client.get("/api/rota").body())
                .hasSize(7)
                .allSatisfy(day -> assertThat(day.asText()).isNotBlank());
    }

    @Nested
    @DisplayName("swapping two days")
    class Swapping {

        @Test
        void gives_each_the_other_neighbour() throws Exception {
            JsonNode before = client.get("/api/rota").body();
            Verbale.attach("rota-before.json", before.toPrettyString(), MediaType.JSON);

            JsonNode after = Verbale.step(
                    "Swap Monday with Thursday",
                    () -> client.post("/api/rota/swaps", Map.of("first", "Monday", "second", "Thursday"))
                            .body());

            assertEquals(
                    "Monday: " + before.path("Thursday").asText() + ", Thursday: "
                            + before.path("Monday").asText(),
                    "Monday: " + after.path("Monday").asText() + ", Thursday: "
                            + after.path("Thursday").asText());
        }

        @Test
        void leaves_the_other_days_alone() throws Exception {
            client.post("/api/rota/swaps", Map.of("first", "Monday", "second", "Thursday"));

            assertThat(client.get("/api/rota").body().path("Sunday").asText()).isEqualTo("Bruno");
        }

        @Test
        void refuses_a_day_with_itself() throws Exception {
            var response = client.post("/api/rota/swaps", Map.of("first", "Friday", "second", "Friday"));

            assertThat(response.status()).isEqualTo(422);
        }

        @Test
        void refuses_a_day_that_is_none() throws Exception {
            var response = client.post("/api/rota/swaps", Map.of("first", "Friday", "second", "Someday"));

            assertThat(response.error()).isEqualTo("No such day: Someday");
        }

        @Test
        void needs_both_days() throws Exception {
            assertThat(client.post("/api/rota/swaps", Map.of("first", "Friday")).error())
                    .isEqualTo("The field 'second' is missing");
        }
    }
}
