package dev.verbale.hub;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.hostile.ByNight;
import java.nio.file.Files;
import org.junit.jupiter.api.Test;

/** A hub alone, with a database in its folder. By day the same is asked of one with PostgreSQL, and commands and senders use this one. */
@ByNight
class EmbeddedHubTest extends HubContract {

    @Override
    HubOptions.Database database() {
        return null;
    }

    @Test
    void a_hub_that_begins_empty_shows_its_first_token_once_and_keeps_none() throws Exception {
        HubOptions options = HubFixture.options(root.resolve("fresh"), 0).withAdminister(null);
        String first;
        try (Hub hub = Hub.start(options)) {
            first = hub.firstToken();
            assertThat(first).startsWith("verbale_").hasSizeGreaterThan(36);
        }
        try (Hub again = Hub.start(options)) {
            assertThat(again.firstToken()).isNull();
        }
        try (var files = Files.walk(root.resolve("fresh"))) {
            for (var file : files.filter(Files::isRegularFile).toList())
                assertThat(new String(Files.readAllBytes(file), java.nio.charset.StandardCharsets.ISO_8859_1))
                        .doesNotContain(first);
        }
    }
}
