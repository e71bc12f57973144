package dev.verbale.hub;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The interface for programs is what its document says: no more, no less, and each answer as it is described there. */
class HubApiTest {

    private static final String FORM = "application/x-www-form-urlencoded";

    @TempDir
    Path root;

    private HubFixture hub;

    @BeforeEach
    void begin() throws Exception {
        hub = new HubFixture(root.resolve("server"), null);
    }

    @AfterEach
    void end() {
        hub.close();
    }

    private static List<Route> routes() {
        return new HubApi(
                        null,
                        new TokenAnswers(null, null),
                        new TusAnswers(null, null),
                        new KnowledgeAnswers(null, null),
                        new HistoryAnswers(null),
                        new KeepingAnswers(null))
                .routes();
    }

    @Test
    void the_document_has_what_there_is_with_the_role_that_it_needs() {
        Map<String, String> there = new TreeMap<>();
        for (Route route : routes())
            there.put(
                    route.method() + " " + String.join("/", route.path()),
                    switch (route.needed()) {
                        // Of uploads the project is known by the upload alone.
                        case NOTHING -> route.path().get(0).equals("uploads") ? "send" : "";
                        case ANY_ROLE -> "any role";
                        default -> route.needed().name().toLowerCase(java.util.Locale.ROOT);
                    });

        assertThat(DescribedApi.operations()).isEqualTo(there);
    }

    @Test
    void who_may_not_is_refused_everywhere_and_nothing_has_happened() throws Exception {
        String read = hub.token("orto", Role.READ, "Ada");
        String elsewhere = hub.token("shed", Role.LABEL, "Bruno");
        for (Route route : routes()) {
            String path = "api/v1/"
                    + String.join("/", route.path())
                            .replace("{project}", "orto")
                            .replace("{upload}", "1")
                            .replaceAll("\\{\\w+}", "x");
            for (String token : List.of("none", read, elsewhere)) {
                HttpResponse<String> answer = hub.api(token, route.method(), path, "", "Tus-Resumable", "1.0.0");
                boolean mayRead = token.equals(read) && route.needed() == Route.Needed.ANY_ROLE;
                boolean isForAll = !token.equals("none") && path.endsWith("openapi.yaml");
                if (mayRead || isForAll) continue;
                assertThat(answer.statusCode())
                        .as(route.method() + " " + path + " by " + token)
                        .isIn(token.equals("none") ? List.of(401, 429) : List.of(403, 404));
                if (!route.method().equals("HEAD")) assertThat(answer.body()).isNotBlank();
            }
        }
        assertThat(hub.get(HubFixture.ADMINISTER, "api/v1/projects/orto/rules").body())
                .doesNotContain("label");
        assertThat(hub.get(read, "projects/orto/").statusCode())
                .as("no token was ended")
                .isEqualTo(200);
    }

    @Test
    void what_is_asked_otherwise_than_it_is_described_is_refused_with_what_there_is() throws Exception {
        HttpResponse<String> put = hub.api(HubFixture.ADMINISTER, "PUT", "api/v1/tokens", "");
        assertThat(put.statusCode()).isEqualTo(405);
        assertThat(put.headers().firstValue("Allow")).hasValue("DELETE, POST");
        for (String nothing : List.of("weeds", "tokens/", "projects/orto", "projects/orto/rules/x", "uploads"))
            assertThat(hub.get(HubFixture.ADMINISTER, "api/v1/" + nothing).statusCode())
                    .as(nothing)
                    .isEqualTo(404);
        assertThat(hub.get(HubFixture.ADMINISTER, "api/v1/openapi.yaml").body()).startsWith("openapi: 3.1");
    }

    @Test
    void a_project_that_nobody_has_begun_is_refused_like_one_of_others() throws Exception {
        String label = hub.token("orto", Role.LABEL, "Ada");
        for (String project : List.of("none", "..", "%2e%2e", "a%2fb", "ORTO"))
            assertThat(hub.api(
                                    label,
                                    "PUT",
                                    "api/v1/projects/" + project + "/reasons/abc",
                                    "label=product",
                                    "Content-Type",
                                    FORM)
                            .statusCode())
                    .as(project)
                    .isIn(400, 403, 404);
        assertThat(hub.api(label, "PUT", "api/v1/projects/orto/reasons/abc", "label=product", "Content-Type", FORM)
                        .statusCode())
                .isEqualTo(204);
    }
}
