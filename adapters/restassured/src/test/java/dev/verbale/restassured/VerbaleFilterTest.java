package dev.verbale.restassured;

import static io.restassured.RestAssured.expect;
import static io.restassured.RestAssured.given;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.is;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Part;
import dev.verbale.http.ExchangeContract;
import dev.verbale.http.Garden;
import dev.verbale.results.Entry.CheckEntry;
import dev.verbale.results.ExchangeChecks;
import dev.verbale.results.TestResult;
import dev.verbale.vocabulary.Outcome;
import io.restassured.response.Response;
import io.restassured.specification.RequestSpecification;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.hamcrest.CustomMatcher;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** REST Assured. */
class VerbaleFilterTest extends ExchangeContract {

    @Override
    protected String client() {
        return "REST Assured";
    }

    @Override
    protected byte[] send(String method, String url, Map<String, String> headers, byte[] body) {
        RequestSpecification request = given().filter(new VerbaleFilter()).headers(headers);
        if (body.length > 0) request.body(body);
        return request.request(method, url).asByteArray();
    }

    @Test
    void what_is_asserted_is_told_as_checks_of_the_exchange() throws Exception {
        Response first = given().filter(new VerbaleFilter().recordingChecks()).get(GARDEN.address("/json"));
        Response second = given().filter(new VerbaleFilter().recordingChecks()).get(GARDEN.address("/image"));
        first.then()
                .assertThat()
                .statusCode(201)
                .and()
                .body("seed", equalTo("Basil"), "token", equalTo(Garden.SECRET))
                .cookie("sid", Garden.SECRET);
        assertThatThrownBy(() -> second.then().statusCode(is(404)))
                .isInstanceOf(AssertionError.class)
                .hasMessageContaining("Expected status code is <404> but was <200>");
        assertThat(first.then().extract().<String>path("seed")).isEqualTo("Basil");

        assertThat(checks())
                .containsExactly(
                        List.of(
                                "passed status code: 201",
                                "passed body seed: \"Basil\", token: \"[masked]\"",
                                "passed cookie sid"),
                        List.of("failed status code: is <404>"));
    }

    @Test
    void expectations_that_were_said_before_hold_as_they_did() throws Exception {
        expect().statusCode(201)
                .body("seed", equalTo("Basil"))
                .given()
                .filter(new VerbaleFilter())
                .get(GARDEN.address("/json"));
        assertThatThrownBy(() -> expect().statusCode(500)
                        .given()
                        .filter(new VerbaleFilter())
                        .get(GARDEN.address("/json")))
                .isInstanceOf(AssertionError.class);
        assertThat(GARDEN.exchanges()).extracting(GARDEN::line).containsExactly("GET /json 201", "GET /json 201");
    }

    private static List<List<String>> checks() throws Exception {
        TestResult test = GARDEN.test();
        Map<Integer, List<CheckEntry>> byExchange = ExchangeChecks.of(test);
        List<List<String>> checks = new ArrayList<>();
        byExchange.keySet().stream()
                .sorted()
                .forEach(id -> checks.add(byExchange.get(id).stream()
                        .map(check -> (check.outcome() == Outcome.PASSED ? "passed " : "failed ") + check.name())
                        .toList()));
        return checks;
    }

    @Test
    void of_a_file_that_is_sent_as_much_is_read_as_is_kept_and_odd_matchers_harm_nobody(@TempDir Path folder)
            throws Exception {
        Path file = Files.write(
                folder.resolve("plan.csv"), "bed,crop\n".repeat(300_000).getBytes(StandardCharsets.UTF_8));
        given().filter(new VerbaleFilter())
                .contentType("text/csv")
                .body(file.toFile())
                .put(GARDEN.address("/echo"))
                .then()
                .statusCode(new CustomMatcher<Integer>("odd") {
                    @Override
                    public boolean matches(Object status) {
                        return true;
                    }

                    @Override
                    public String toString() {
                        throw new IllegalStateException("asked for its text");
                    }
                });
        given().filter(new VerbaleFilter())
                .multiPart("plan", file.toFile(), "text/csv")
                .post(GARDEN.address("/echo"));

        List<ExchangeMade> made = GARDEN.exchanges();
        assertThat(made.get(0).request().body().size()).isEqualTo(2_700_000);
        assertThat(made.get(0).request().body().isCut()).isTrue();
        Part part = made.get(1).request().body().parts().get(0);
        assertThat(part.body().size()).as("it breaks off before its end").isEqualTo(-1);
        assertThat(part.body().isCut()).isTrue();
        assertThat(made.get(1).request().body().size()).isGreaterThan(2_700_000);
    }

    @Test
    void a_form_and_the_parts_of_an_upload_are_told() throws Exception {
        given().filter(new VerbaleFilter()).formParam("seed", "Kale").post(GARDEN.address("/echo"));
        given().filter(new VerbaleFilter())
                .multiPart("plan", "plan.csv", "a,b".getBytes(StandardCharsets.UTF_8), "text/csv")
                .multiPart("token", Garden.SECRET)
                .post(GARDEN.address("/echo"));

        List<ExchangeMade> made = GARDEN.exchanges();
        assertThat(made.get(0).request().body().text()).isEqualTo("seed=Kale");
        assertThat(made.get(1).request().body().parts())
                .extracting(Part::name, Part::fileName, part -> part.body().text())
                .containsExactly(tuple("plan", "plan.csv", "a,b"), tuple("token", null, "[masked]"));
    }
}
