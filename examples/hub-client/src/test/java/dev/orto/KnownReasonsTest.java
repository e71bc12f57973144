package dev.orto;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.orto.hub.AdministeringApi;
import dev.orto.hub.KeepingApi;
import dev.orto.hub.KnowingApi;
import dev.orto.hub.client.ApiClient;
import dev.orto.hub.client.ApiException;
import java.net.URI;
import java.time.LocalDate;
import org.junit.jupiter.api.Test;

/**
 * What a team's own program asks a hub: where it is and as whom is in the environment, as for Verbale's own commands. Files are sent by
 * a client of tus.
 */
class KnownReasonsTest {

    private final String project = System.getenv("VERBALE_HUB_PROJECT");

    private static ApiClient as(String token) {
        var client = new ApiClient();
        client.updateBaseUri(System.getenv("VERBALE_HUB").replaceFirst("/+$", "") + "/api/v1");
        client.setRequestInterceptor(request -> request.header("Authorization", "Bearer " + token));
        return client;
    }

    @Test
    void a_tracker_says_what_it_knows_of_a_reason() throws Exception {
        ApiClient administers = as(System.getenv("VERBALE_HUB_TOKEN"));
        String token = new AdministeringApi(administers).makeToken(project, "label", "the tracker").strip();
        var known = new KnowingApi(as(token));

        known.know(
                project,
                "3f09a1c2b7d4",
                "product",
                "Ada",
                URI.create("https://tracker.orto.example/17"),
                "snails, again",
                LocalDate.of(2026, 12, 31));

        assertThat(known.rules(project)).contains("3f09a1c2b7d4", "product", "Ada", "tracker.orto.example/17", "2026-12-31");
        known.forget(project, "3f09a1c2b7d4");
        assertThat(known.rules(project)).doesNotContain("3f09a1c2b7d4");
        assertThat(new KeepingApi(as(token)).keeping(project)).contains("all runs stay");
        assertThatThrownBy(() -> new KeepingApi(as(token)).keep(project, 30, null, null))
                .isInstanceOfSatisfying(ApiException.class, refused -> assertThat(refused.getCode()).isEqualTo(403));
    }
}
