package dev.verbale.hub;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.query.PostgresServer;
import java.io.IOException;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** A hub with the database of a team: a real server. */
class PostgresHubTest extends HubContract {

    private static PostgresServer server;

    @BeforeAll
    static void start() throws Exception {
        server = PostgresServer.start();
    }

    @AfterAll
    static void stop() throws Exception {
        server.close();
    }

    @Override
    HubOptions.Database database() throws Exception {
        return new HubOptions.Database(server.url(server.newDatabase()), "owner", "owner's");
    }

    @Test
    void a_second_hub_beside_it_serves_the_same_and_either_may_go() throws Exception {
        try (var one = new HubFixture(root.resolve("two"), database())) {
            String send = one.token("orto", Role.SEND, "CI");
            var recorder = HubFixture.recorder(root.resolve("shared"));
            HubFixture.test(recorder, "swaps", true);
            HubFixture.end(recorder);
            try (Hub other = one.another()) {
                one.sender(new dev.verbale.folder.RunFolder(recorder.folder()), send, "orto", "shared")
                        .send();
                one.close();
                String page = "";
                for (int tries = 0;
                        tries < 200 && !page.contains("all 1 passed") && !page.contains("1 passed");
                        tries++) {
                    page = one.client
                            .send(
                                    HttpRequest.newBuilder(other.address().resolve("projects/orto/runs/shared/"))
                                            .header("Authorization", "Bearer " + HubFixture.ADMINISTER)
                                            .build(),
                                    BodyHandlers.ofString())
                            .body();
                    java.util.concurrent.locks.LockSupport.parkNanos(50_000_000);
                }
                assertThat(page).contains("passed").contains("Verbale");
            }
        }
    }

    @Test
    void a_database_that_cannot_be_used_is_named_without_its_password() {
        assertThatThrownBy(() -> new HubFixture(
                        root.resolve("none"),
                        new HubOptions.Database("jdbc:postgresql://127.0.0.1:1/none", "ada", "turnip-4711")))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("jdbc:postgresql://127.0.0.1:1/none as ada")
                .hasMessageNotContaining("turnip");
    }
}
