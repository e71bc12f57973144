package dev.verbale.spring;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.http.ExchangeContract;
import java.net.URI;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.http.HttpMethod;
import org.springframework.http.client.JdkClientHttpRequestFactory;
import org.springframework.web.client.RestClient;
import org.springframework.web.client.RestTemplate;

/** Spring's {@code RestClient} and {@code RestTemplate}. */
class VerbaleSpringTest extends ExchangeContract {

    private final RestClient client = RestClient.builder()
            .requestFactory(VerbaleSpring.watch(new JdkClientHttpRequestFactory()))
            .build();

    @Override
    protected String client() {
        return "Spring";
    }

    @Override
    protected byte[] send(String method, String url, Map<String, String> headers, byte[] body) {
        RestClient.RequestBodySpec request = client.method(HttpMethod.valueOf(method))
                .uri(URI.create(url))
                .headers(all -> headers.forEach(all::set));
        if (body.length > 0) request.body(body);
        byte[] answer = request.retrieve().body(byte[].class);
        return answer == null ? new byte[0] : answer;
    }

    /** Spring sets the client underneath to follow none. */
    @Override
    protected List<String> redirected() {
        return List.of("GET /moved 302");
    }

    @Test
    void the_older_client_is_heard_too() throws Exception {
        RestTemplate older = VerbaleSpring.watch(VerbaleSpring.watch(new RestTemplate()));
        assertThat(older.getForObject(GARDEN.address("/json"), String.class)).contains("Basil");

        assertThat(GARDEN.exchanges()).extracting(GARDEN::line).containsExactly("GET /json 201");
    }
}
