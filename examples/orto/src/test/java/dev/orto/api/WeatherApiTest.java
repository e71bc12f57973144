package dev.orto.api;

import static org.assertj.core.api.Assertions.assertThat;

import dev.orto.GardenServer;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

@Tag("api")
class WeatherApiTest {

    @RegisterExtension
    final GardenServer garden = new GardenServer();

    @Test
    void may_is_warm() throws Exception {
        var client = new GardenClient(garden.address());

        assertThat(client.get("/api/weather").body().path("celsius").asInt()).isBetween(10, 25);
    }
}
