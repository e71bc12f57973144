package dev.verbale.httpclient5;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Verbale;
import dev.verbale.event.ExchangeMade;
import dev.verbale.http.ExchangeContract;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Future;
import org.apache.hc.client5.http.async.methods.SimpleHttpRequest;
import org.apache.hc.client5.http.async.methods.SimpleHttpResponse;
import org.apache.hc.client5.http.async.methods.SimpleRequestBuilder;
import org.apache.hc.client5.http.impl.async.CloseableHttpAsyncClient;
import org.apache.hc.client5.http.impl.async.HttpAsyncClients;
import org.apache.hc.core5.http.ContentType;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Apache HttpClient 5, the asynchronous one. */
class AsyncClientTest extends ExchangeContract {

    private static final CloseableHttpAsyncClient CLIENT =
            VerbaleHttpClient5.watch(HttpAsyncClients.custom()).build();

    @BeforeAll
    static void start() {
        CLIENT.start();
    }

    @AfterAll
    static void stop() throws Exception {
        CLIENT.close();
    }

    @Override
    protected String client() {
        return "Apache HttpClient";
    }

    @Override
    protected byte[] send(String method, String url, Map<String, String> headers, byte[] body) throws Exception {
        byte[] answer = begin(method, url, headers, body).get().getBodyBytes();
        return answer == null ? new byte[0] : answer;
    }

    private static Future<SimpleHttpResponse> begin(
            String method, String url, Map<String, String> headers, byte[] body) {
        SimpleRequestBuilder request = SimpleRequestBuilder.create(method).setUri(url);
        headers.forEach(request::setHeader);
        if (body.length > 0) request.setBody(body, ContentType.parse(headers.get("Content-Type")));
        SimpleHttpRequest built = request.build();
        return CLIENT.execute(built, null);
    }

    @Test
    void what_comes_on_another_thread_is_on_the_step_that_asked() throws Exception {
        Future<SimpleHttpResponse> answer =
                Verbale.step("Ask", () -> begin("GET", GARDEN.address("/moved"), Map.of(), new byte[0]));
        answer.get();

        List<ExchangeMade> made = GARDEN.exchanges();
        assertThat(made).extracting(GARDEN::line).containsExactly("GET /moved 302", "GET /json 201");
        assertThat(made).allMatch(one -> one.in() == made.get(0).in() && one.thread() == null);
    }
}
