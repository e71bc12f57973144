package dev.verbale.okhttp;

import dev.verbale.http.difficult.Client;
import dev.verbale.http.difficult.Scenario;
import dev.verbale.http.difficult.WatchedAsBareContract;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import okhttp3.Cookie;
import okhttp3.CookieJar;
import okhttp3.Credentials;
import okhttp3.Headers;
import okhttp3.HttpUrl;
import okhttp3.Interceptor;
import okhttp3.MediaType;
import okhttp3.OkHttpClient;
import okhttp3.Request;
import okhttp3.RequestBody;
import okhttp3.Response;
import okio.BufferedSink;
import okio.Okio;

/** OkHttp. */
class WatchedAsBareTest extends WatchedAsBareContract {

    @Override
    protected Client client(boolean watched) {
        OkHttpClient before = new OkHttpClient.Builder()
                .readTimeout(patience)
                .connectTimeout(connecting)
                .cookieJar(new Jar())
                .authenticator((route, response) -> response.request().header("Authorization") != null
                        ? null
                        : response.request()
                                .newBuilder()
                                .header("Authorization", Credentials.basic("ada", "watering"))
                                .build())
                .addInterceptor(adding("X-Before"))
                .addNetworkInterceptor(adding("X-Before-Wire"))
                .build();
        OkHttpClient ours = watched ? VerbaleOkHttp.watch(before) : before;
        OkHttpClient client = ours.newBuilder()
                .addInterceptor(adding("X-Behind"))
                .addNetworkInterceptor(adding("X-Behind-Wire"))
                .build();
        return new Client() {
            @Override
            public Answer send(Scenario scenario, String url, Reader reader) throws Throwable {
                try (Response response = client.newCall(request(scenario, url)).execute()) {
                    InputStream body = response.body().byteStream();
                    return new Answer(response.code(), response.getClass().getName(), reader.read(body));
                }
            }

            @Override
            public void close() {
                client.dispatcher().executorService().shutdown();
                client.connectionPool().evictAll();
            }
        };
    }

    private static Interceptor adding(String header) {
        return chain ->
                chain.proceed(chain.request().newBuilder().header(header, "1").build());
    }

    private static Request request(Scenario scenario, String url) {
        String type = scenario.headers().get("Content-Type");
        MediaType media = type == null ? null : MediaType.get(type);
        RequestBody body = scenario.streamed() > 0
                ? new Streamed(media, scenario.streamed())
                : scenario.body().length > 0 ? RequestBody.create(scenario.body(), media) : null;
        return new Request.Builder()
                .url(url)
                .headers(Headers.of(scenario.headers()))
                .method(scenario.method(), body)
                .build();
    }

    private static final class Streamed extends RequestBody {
        private final MediaType type;
        private final int megabytes;

        Streamed(MediaType type, int megabytes) {
            this.type = type;
            this.megabytes = megabytes;
        }

        @Override
        public MediaType contentType() {
            return type;
        }

        @Override
        public void writeTo(BufferedSink sink) throws IOException {
            sink.writeAll(Okio.source(Client.zeros(megabytes)));
        }
    }

    private static final class Jar implements CookieJar {
        private final Map<String, List<Cookie>> kept = new ConcurrentHashMap<>();

        @Override
        public void saveFromResponse(HttpUrl url, List<Cookie> cookies) {
            kept.put(url.host(), cookies);
        }

        @Override
        public List<Cookie> loadForRequest(HttpUrl url) {
            return kept.getOrDefault(url.host(), List.of());
        }
    }

    @Override
    protected Set<String> unseen() {
        return Set.of();
    }
}
