package dev.orto.api;

import static io.restassured.RestAssured.given;
import static org.assertj.core.api.Assertions.assertThat;
import static org.hamcrest.Matchers.closeTo;
import static org.hamcrest.Matchers.equalTo;
import static org.hamcrest.Matchers.notNullValue;

import dev.orto.GardenServer;
import dev.verbale.MediaType;
import dev.verbale.Verbale;
import dev.verbale.restassured.VerbaleFilter;
import io.restassured.config.JsonConfig;
import io.restassured.config.RestAssuredConfig;
import io.restassured.path.json.config.JsonPathConfig.NumberReturnType;
import io.restassured.response.Response;
import io.restassured.specification.RequestSpecification;
import java.io.IOException;
import java.io.InputStream;
import java.util.Map;
import java.util.Objects;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The harvest's API, with REST Assured. */
@Tag("api")
@Tag("harvest")
class HarvestApiTest {

    private static final String TOKEN = "scale-4711-turnip";
    private static final RestAssuredConfig NUMBERS =
            RestAssuredConfig.config().jsonConfig(JsonConfig.jsonConfig().numberReturnType(NumberReturnType.DOUBLE));

    @RegisterExtension
    final GardenServer garden = new GardenServer();

    private RequestSpecification scale() {
        return given().config(NUMBERS)
                .filter(new VerbaleFilter().recordingChecks())
                .baseUri(garden.address().toString())
                .header("X-Scale-Token", TOKEN);
    }

    @Test
    @Tag("smoke")
    void a_weighing_is_written_down() {
        scale().contentType("application/json")
                .body(Map.of("crop", "Kale", "neighbour", "Ada", "kilograms", 1.5))
                .post("/api/harvest")
                .then()
                .body("crop", equalTo("Kale"))
                .body("kilograms", closeTo(1.5, 0.001))
                .statusCode(201);
    }

    @Test
    void nobody_weighs_without_the_token() {
        given().filter(new VerbaleFilter().recordingChecks())
                .baseUri(garden.address().toString())
                .contentType("application/json")
                .body(Map.of("crop", "Kale"))
                .post("/api/harvest")
                .then()
                .statusCode(403)
                .body("error", equalTo("The scale's token is missing"));
    }

    @ParameterizedTest(name = "{0}: {1} kg")
    @CsvSource({
        "Tomatoes, 12.4, Chiara",
        "Strawberries, 6.3, Elsa",
        "Courgettes, 9, Bruno",
        "Herbs, 1.1, Ada",
        "Potatoes, 31, Dario"
    })
    void the_total_of_a_crop_is_the_sum_of_its_weighings(String crop, double kilograms, String neighbour) {
        scale().get("/api/harvest/totals/{crop}", crop)
                .then()
                .statusCode(200)
                .body("crop", equalTo(crop))
                .body("kilograms", closeTo(kilograms, 0.001));
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource({"2023", "2024", "2025"})
    void a_year_can_be_looked_up(int year) {
        scale().get("/api/harvest/years/{year}", year).then().statusCode(200).body("daysOfRain", notNullValue());
    }

    @Test
    void the_scale_is_asked_again_until_it_is_awake() {
        Response response = Verbale.step("Wake the scale", this::awake);

        response.then().body("scale", equalTo("ready"));
    }

    private Response awake() {
        Response response = scale().get("/api/harvest/scale");
        for (int attempt = 2; response.statusCode() == 503 && attempt <= 3; attempt++)
            response = scale().get("/api/harvest/scale");
        return response;
    }

    @Test
    void a_photo_of_the_basket_is_kept() throws Exception {
        byte[] photo;
        try (InputStream in = resource("basket.png")) {
            photo = in.readAllBytes();
        }

        scale().multiPart("photo", "basket.png", photo, "image/png")
                .multiPart("crop", "Strawberries")
                .post("/api/harvest/photos")
                .then()
                .statusCode(201)
                .body("name", equalTo("basket.png"))
                .body("bytes", equalTo(photo.length));
    }

    @Test
    void what_the_tablet_at_the_scale_asked_yesterday_is_kept_beside() throws Exception {
        try (InputStream tablet = resource("tablet.har")) {
            Verbale.attach("tablet.har", tablet, MediaType.of("application/har+json"));
        }

        assertThat(scale().get("/api/harvest/totals/Herbs").statusCode()).isEqualTo(200);
    }

    private static InputStream resource(String name) throws IOException {
        return Objects.requireNonNull(HarvestApiTest.class.getResourceAsStream(name), name);
    }
}
