package dev.verbale.restassured;

import static io.restassured.RestAssured.given;
import static io.restassured.config.HttpClientConfig.httpClientConfig;
import static io.restassured.config.RestAssuredConfig.config;
import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.ExchangeMade;
import dev.verbale.http.difficult.Client;
import dev.verbale.http.difficult.WatchedAsBareContract;
import io.restassured.RestAssured;
import io.restassured.filter.Filter;
import io.restassured.filter.OrderedFilter;
import io.restassured.response.Response;
import io.restassured.specification.RequestSpecification;
import java.io.FilterInputStream;
import java.io.InputStream;
import java.util.List;
import java.util.Set;
import org.apache.http.params.CoreConnectionPNames;
import org.junit.jupiter.api.Test;

/** REST Assured. */
class WatchedAsBareTest extends WatchedAsBareContract {

    @Override
    @SuppressWarnings("deprecation") // how REST Assured names what its client is told
    protected Client client(boolean watched) {
        var configured = config().httpClient(httpClientConfig()
                .setParam(CoreConnectionPNames.SO_TIMEOUT, (int) patience.toMillis())
                .setParam(CoreConnectionPNames.CONNECTION_TIMEOUT, (int) connecting.toMillis()));
        return (scenario, url, reader) -> {
            RequestSpecification request = given().config(configured)
                    .urlEncodingEnabled(false)
                    .filter(adding("X-Before", 0))
                    .headers(scenario.headers());
            if (scenario.address().equals("/basic")) request.auth().basic("ada", "watering");
            if (scenario.address().equals("/digest")) request.auth().digest("ada", "watering");
            if (watched) request.filter(new VerbaleFilter());
            request.filter(adding("X-Behind", OrderedFilter.LOWEST_PRECEDENCE));
            if (scenario.streamed() > 0) request.body(Client.zeros(scenario.streamed()));
            else if (scenario.body().length > 0) request.body(scenario.body());
            Response response = request.request(scenario.method(), url);
            InputStream body = response.asInputStream();
            String read = reader.read(scenario.address().equals("/endless") ? unclosed(body) : body);
            return new Client.Answer(
                    response.getStatusCode(), response.getClass().getName(), read);
        };
    }

    /** Closed, it would be read to its end first. */
    private static InputStream unclosed(InputStream body) {
        return new FilterInputStream(body) {
            @Override
            public void close() {}
        };
    }

    private static Filter adding(String header, int order) {
        return new OrderedFilter() {
            @Override
            public Response filter(
                    io.restassured.specification.FilterableRequestSpecification request,
                    io.restassured.specification.FilterableResponseSpecification expected,
                    io.restassured.filter.FilterContext context) {
                request.header(header, "1");
                return context.next(request, expected);
            }

            @Override
            public int getOrder() {
                return order;
            }
        };
    }

    @Override
    protected boolean reportsRepeats() {
        return false;
    }

    @Override
    protected Set<String> unseen() {
        return Set.of();
    }

    @Test
    void registered_again_for_each_class_it_records_each_request_once() throws Exception {
        try {
            for (int i = 0; i < 4; i++) RestAssured.filters(new VerbaleFilter());
            given().filter(new VerbaleFilter()).get(GARDEN.address("/json"));
        } finally {
            RestAssured.reset();
        }

        assertThat(GARDEN.exchanges()).extracting(GARDEN::line).containsExactly("GET /json 201");
    }

    @Test
    void of_an_answer_that_nobody_read_what_came_is_kept_and_can_still_be_read() throws Exception {
        Response packed = given().filter(new VerbaleFilter()).get(GARDEN.address("/packed"));
        Response plain = given().filter(new VerbaleFilter()).get(GARDEN.address("/json"));
        given().get(GARDEN.address("/json"))
                .asString(); // answered after the one before: that one's body was sent whole

        List<ExchangeMade> made = GARDEN.exchanges();
        ExchangeMade.Body body = made.get(0).response().body();
        assertThat(body.text()).startsWith("Basil Basil");
        assertThat(body.decoded()).isEqualTo(6_000);
        assertThat(body.size()).as("on the wire").isLessThan(200);
        assertThat(made.get(1).response().body().text()).contains("Basil");
        assertThat(made.get(1).attributes())
                .containsEntry("body", "the test did not read it")
                .doesNotContainKey("ended");
        assertThat(packed.asString()).isEqualTo("Basil ".repeat(1_000));
        assertThat(plain.asString()).contains("Basil");
    }
}
