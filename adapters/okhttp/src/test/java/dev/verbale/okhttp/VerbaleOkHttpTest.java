package dev.verbale.okhttp;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.Verbale;
import dev.verbale.event.ExchangeMade;
import dev.verbale.http.ExchangeContract;
import java.io.IOException;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import okhttp3.Call;
import okhttp3.Callback;
import okhttp3.Headers;
import okhttp3.MediaType;
import okhttp3.OkHttpClient;
import okhttp3.Request;
import okhttp3.RequestBody;
import okhttp3.Response;
import org.junit.jupiter.api.Test;

/** OkHttp. */
class VerbaleOkHttpTest extends ExchangeContract {

    private final OkHttpClient client = VerbaleOkHttp.watch(new OkHttpClient());

    @Override
    protected String client() {
        return "OkHttp";
    }

    @Override
    protected byte[] send(String method, String url, Map<String, String> headers, byte[] body) throws Exception {
        try (Response response =
                client.newCall(request(method, url, headers, body)).execute()) {
            return response.body().bytes();
        }
    }

    private static Request request(String method, String url, Map<String, String> headers, byte[] body) {
        RequestBody sent =
                body.length == 0 ? null : RequestBody.create(body, MediaType.get(headers.get("Content-Type")));
        return new Request.Builder()
                .url(url)
                .headers(Headers.of(headers))
                .method(method, sent)
                .build();
    }

    @Test
    void a_response_that_is_still_read_when_its_test_ends_is_told_by_then() throws Exception {
        Response response = client.newCall(request("GET", GARDEN.address("/long"), Map.of(), new byte[0]))
                .execute();
        response.body().source().skip(10);

        ExchangeMade made = GARDEN.exchanges().get(0);
        response.close();
        assertThat(GARDEN.line(made)).isEqualTo("GET /long 200");
        assertThat(made.attributes()).containsEntry("ended", "by the end of the test, before the response");
    }

    @Test
    void a_call_that_another_thread_executes_is_on_the_step_that_made_it() throws Exception {
        var answered = new CompletableFuture<String>();
        Verbale.step(
                "Look at the beds",
                () -> client.newCall(request("GET", GARDEN.address("/image"), Map.of(), new byte[0]))
                        .enqueue(new Callback() {
                            @Override
                            public void onFailure(Call call, IOException failure) {
                                answered.completeExceptionally(failure);
                            }

                            @Override
                            public void onResponse(Call call, Response response) {
                                response.close();
                                answered.complete("");
                            }
                        }));
        answered.join();

        ExchangeMade made = GARDEN.exchanges().get(0);
        assertThat(made.in()).isNotZero();
        assertThat(made.thread()).isNull();
        assertThat(made.timing().parts()).containsKeys("connect", "first byte");
    }
}
