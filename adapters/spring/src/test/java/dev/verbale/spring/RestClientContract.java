package dev.verbale.spring;

import dev.verbale.http.difficult.Client;
import dev.verbale.http.difficult.WatchedAsBareContract;
import java.net.URI;
import java.util.Set;
import org.springframework.http.HttpMethod;
import org.springframework.http.client.ClientHttpRequestFactory;
import org.springframework.http.client.ClientHttpRequestInterceptor;
import org.springframework.web.client.RestClient;

/** Spring's {@code RestClient} over whatever is underneath. */
abstract class RestClientContract extends WatchedAsBareContract {

    protected abstract ClientHttpRequestFactory factory();

    /** Without interceptors: with one, Spring buffers by itself. */
    @Override
    protected Client client(boolean watched) {
        ClientHttpRequestFactory factory = factory();
        RestClient client = RestClient.builder()
                .requestFactory(watched ? VerbaleSpring.watch(factory) : factory)
                .requestInitializer(request -> request.getHeaders().set("X-Before", "1"))
                .build();
        return (scenario, url, reader) -> {
            if (scenario.address().equals("/endless")) // Spring reads what it closes to its end
            return new Client.Answer(0, "endless", "");
            RestClient.RequestBodySpec request = client.method(HttpMethod.valueOf(scenario.method()))
                    .uri(URI.create(url))
                    .headers(all -> scenario.headers().forEach(all::set));
            if (scenario.streamed() > 0)
                request.body(out -> Client.zeros(scenario.streamed()).transferTo(out));
            else if (scenario.body().length > 0) request.body(scenario.body());
            return request.exchange((sent, response) -> new Client.Answer(
                    response.getStatusCode().value(), response.getStatusText(), reader.read(response.getBody())));
        };
    }

    /** The client underneath follows them, and adds headers of its own. */
    @Override
    protected boolean seesEachHop() {
        return false;
    }

    @Override
    protected Set<String> unseen() {
        return Set.of();
    }

    static ClientHttpRequestInterceptor adding(String header) {
        return (request, body, execution) -> {
            request.getHeaders().set(header, "1");
            return execution.execute(request, body);
        };
    }
}
