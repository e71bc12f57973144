package dev.orto.api;

import static org.assertj.core.api.Assertions.assertThat;

import dev.orto.GardenServer;
import dev.orto.web.Orto;
import dev.verbale.Verbale;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestMethodOrder;

/** One shed for all of these tests, as in life: whoever takes the key has to bring it back. */
@Tag("api")
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
class ShedApiTest {

    private static Orto orto;

    private final GardenClient client = new GardenClient(orto.address());

    @BeforeAll
    static void open_the_garden() {
        orto = GardenServer.open();
    }

    @AfterAll
    static void close_the_garden() {
        orto.close();
    }

    @Test
    @Order(0)
    void the_code_of_the_lock_is_nobodys_business() {
        Verbale.secret("beetroot-42");

        Verbale.log("Bruno turns the lock to beetroot-42"); // masked, from here on
    }

    @BeforeEach
    void bruno_takes_the_key() throws Exception {
        var response = client.post("/api/shed/key", Map.of("neighbour", "Bruno"));
        assertThat(response.status()).as("taking the key: %s", response.error()).isEqualTo(201);
    }

    @AfterEach
    void bruno_brings_it_back() throws Exception {
        client.delete("/api/shed/key");
    }

    @Test
    @Order(1)
    void the_shed_knows_who_has_the_key() throws Exception {
        assertThat(client.get("/api/shed/key").body().path("holder").asText()).isEqualTo("Bruno");
    }

    @Test
    @Order(2)
    void nobody_takes_it_a_second_time() throws Exception {
        assertThat(client.post("/api/shed/key", Map.of("neighbour", "Elsa")).error())
                .isEqualTo("The key is with Bruno");
    }
}
