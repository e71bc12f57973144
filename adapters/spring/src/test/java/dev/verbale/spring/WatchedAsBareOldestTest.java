package dev.verbale.spring;

import dev.verbale.hostile.ByNight;
import dev.verbale.http.difficult.Client;
import dev.verbale.http.difficult.Scenario;
import java.net.URI;
import org.springframework.http.HttpMethod;
import org.springframework.http.client.ClientHttpRequestFactory;
import org.springframework.http.client.SimpleClientHttpRequestFactory;
import org.springframework.web.client.RestTemplate;

/** {@code RestTemplate} over {@code HttpURLConnection}, with interceptors of the suite's own before and behind ours. */
@ByNight
class WatchedAsBareOldestTest extends RestClientContract {

    @Override
    protected ClientHttpRequestFactory factory() {
        var factory = new SimpleClientHttpRequestFactory();
        factory.setReadTimeout((int) patience.toMillis());
        factory.setConnectTimeout((int) connecting.toMillis());
        return factory;
    }

    /** It wraps what it remembers of a broken connection in the same once more where it was asked before. */
    @Override
    protected String withoutRandomness(String thrown) {
        return thrown.replaceAll("( java\\.net\\.SocketException: Unexpected end of file from server)\\1", "$1");
    }

    /** A hint is an answer to it, and the answer never comes. */
    @Override
    protected boolean waitsInVain(Scenario scenario) {
        return super.waitsInVain(scenario) || scenario.address().equals("/early");
    }

    @Override
    protected Client client(boolean watched) {
        var template = new RestTemplate(factory());
        template.getInterceptors().add(adding("X-Before"));
        if (watched) VerbaleSpring.watch(template);
        template.getInterceptors().add(adding("X-Behind"));
        return (scenario, url, reader) -> template.execute(
                URI.create(url),
                HttpMethod.valueOf(scenario.method()),
                request -> {
                    scenario.headers().forEach(request.getHeaders()::set);
                    if (scenario.streamed() > 0)
                        Client.zeros(scenario.streamed()).transferTo(request.getBody());
                    else request.getBody().write(scenario.body());
                },
                response -> new Client.Answer(
                        response.getStatusCode().value(), response.getStatusText(), reader.read(response.getBody())));
    }
}
