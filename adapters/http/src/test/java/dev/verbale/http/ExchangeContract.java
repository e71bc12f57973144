package dev.verbale.http;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.Verbale;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.results.Entry;
import dev.verbale.spi.AdapterRecorder;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.RegisterExtension;

/** What every adapter of an HTTP client does. Each of their tests sends in its client's way. */
public abstract class ExchangeContract {

    @RegisterExtension
    protected static final Garden GARDEN = Garden.open();

    /** With {@code headers} and, where it is not empty, {@code body}; gives what the test reads of the response. */
    protected abstract byte[] send(String method, String url, Map<String, String> headers, byte[] body)
            throws Exception;

    /** As {@link Garden#line} has it. */
    protected abstract String client();

    protected final byte[] get(String path) throws Exception {
        return send("GET", GARDEN.address(path), Map.of(), new byte[0]);
    }

    @Test
    void an_exchange_is_on_its_step_with_both_sides_and_its_secrets_masked() throws Exception {
        byte[] answer = Verbale.step(
                "Borrow",
                () -> send(
                        "POST",
                        GARDEN.address("/json?api_key=k3y"),
                        Map.of("Authorization", "Bearer " + Garden.SECRET, "Content-Type", "application/json"),
                        "{\"neighbour\":\"Ada\",\"password\":\"hunter2\"}".getBytes(UTF_8)));

        Entry.StepEntry step = (Entry.StepEntry) GARDEN.test().entries().get(0);
        ExchangeMade made = ((Entry.ExchangeEntry) step.entries().get(0)).made();
        assertThat(new String(answer, UTF_8)).as("the test reads it whole").contains(Garden.SECRET);
        assertThat(made.client()).isEqualTo(client());
        assertThat(GARDEN.line(made)).isEqualTo("POST /json?api_key=[masked] 201");
        assertThat(made.request().headers()).contains(new Header("Authorization", "[masked]"));
        assertThat(made.request().body().text()).isEqualTo("{\"neighbour\":\"Ada\",\"password\":\"[masked]\"}");
        assertThat(made.response().body().text()).isEqualTo("{\"seed\":\"Basil\",\"token\":\"[masked]\"}");
        assertThat(made.response().headers())
                .anyMatch(one ->
                        one.name().equalsIgnoreCase("set-cookie") && one.value().equals("[masked]"));
        assertThat(made.timing().microsOrZero()).isPositive();
        assertThat(made.timing().parts()).containsKey("first byte");
    }

    @Test
    void a_trace_can_be_found_by_what_was_sent() throws Exception {
        get("/image");

        ExchangeMade made = GARDEN.exchanges().get(0);
        assertThat(GARDEN.traceParent("/image"))
                .isNotNull()
                .contains(made.trace().id());
        assertThat(made.trace().address())
                .isEqualTo("https://traces.example/" + made.trace().id());
    }

    @Test
    void what_is_packed_is_read_and_what_is_no_text_is_a_file() throws Exception {
        assertThat(get("/image")).hasSize(4);
        send("GET", GARDEN.address("/packed"), Map.of("Accept-Encoding", "gzip"), new byte[0]);

        List<ExchangeMade> made = GARDEN.exchanges();
        Path file = AdapterRecorder.current()
                .folder()
                .resolve(made.get(0).response().body().file());
        assertThat(Files.readAllBytes(file)).startsWith(0x89, 'P', 'N', 'G');
        assertThat(made.get(1).response().body().text()).startsWith("Basil Basil");
        assertThat(made.get(1).response().body().decoded()).isEqualTo(6_000);
    }

    @Test
    void of_a_long_body_the_beginning_is_kept_and_the_test_has_it_whole() throws Exception {
        assertThat(get("/long")).hasSize(3_000_000);

        ExchangeMade.Body body = GARDEN.exchanges().get(0).response().body();
        assertThat(body.size()).isEqualTo(3_000_000);
        assertThat(body.isCut()).isTrue();
        assertThat(AdapterRecorder.current().folder().resolve(body.file()))
                .satisfies(file -> assertThat(Files.size(file)).isBetween(900_000L, 1_000_000L));
    }

    @Test
    void a_body_that_is_sent_is_kept_and_arrives() throws Exception {
        byte[] lines = "{\"plot\":7}\n{\"plot\":12}\n".getBytes(UTF_8);
        byte[] answer = send("PUT", GARDEN.address("/echo"), Map.of("Content-Type", "application/x-ndjson"), lines);

        assertThat(answer).isEqualTo(lines);
        ExchangeMade made = GARDEN.exchanges().get(0);
        assertThat(made.request().body().text()).isEqualTo(new String(lines, UTF_8));
        assertThat(made.request().body().mediaType()).startsWith("application/x-ndjson");
    }

    @Test
    void no_response_and_half_an_answer_are_told_and_thrown_as_they_were() throws Exception {
        assertThatThrownBy(() -> get("/cut")).isInstanceOf(Exception.class);
        assertThatThrownBy(() -> send("GET", "http://127.0.0.1:1/", Map.of(), new byte[0]))
                .satisfiesAnyOf(
                        failure -> assertThat(failure).isInstanceOf(IOException.class),
                        failure -> assertThat(failure).hasCauseInstanceOf(IOException.class));

        List<ExchangeMade> made = GARDEN.exchanges();
        assertThat(made).hasSize(2);
        assertThat(made.get(0).failure()).isNotNull();
        assertThat(made.get(1).response()).isNull();
        assertThat(made.get(1).failure()).contains("Connect");
    }

    @Test
    void redirects_are_lines_of_their_own() throws Exception {
        get("/moved");

        assertThat(GARDEN.exchanges()).extracting(GARDEN::line).containsExactlyElementsOf(redirected());
    }

    /** The lines of a request for {@code /moved}. */
    protected List<String> redirected() {
        return List.of("GET /moved 302", "GET /json 201");
    }
}
