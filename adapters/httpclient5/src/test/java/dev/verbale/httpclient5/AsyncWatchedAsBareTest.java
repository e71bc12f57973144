package dev.verbale.httpclient5;

import dev.verbale.http.difficult.Client;
import dev.verbale.http.difficult.Scenario;
import dev.verbale.http.difficult.WatchedAsBareContract;
import java.util.Set;
import java.util.concurrent.ExecutionException;
import org.apache.hc.client5.http.async.methods.SimpleHttpResponse;
import org.apache.hc.client5.http.async.methods.SimpleResponseConsumer;
import org.apache.hc.client5.http.auth.AuthScope;
import org.apache.hc.client5.http.auth.UsernamePasswordCredentials;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.impl.async.CloseableHttpAsyncClient;
import org.apache.hc.client5.http.impl.async.HttpAsyncClientBuilder;
import org.apache.hc.client5.http.impl.async.HttpAsyncClients;
import org.apache.hc.client5.http.impl.auth.BasicCredentialsProvider;
import org.apache.hc.client5.http.impl.nio.PoolingAsyncClientConnectionManagerBuilder;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.HttpRequest;
import org.apache.hc.core5.http.message.BasicHttpRequest;
import org.apache.hc.core5.http.nio.AsyncEntityProducer;
import org.apache.hc.core5.http.nio.entity.BasicAsyncEntityProducer;
import org.apache.hc.core5.http.nio.support.BasicRequestProducer;
import org.apache.hc.core5.reactor.IOReactorConfig;
import org.apache.hc.core5.util.TimeValue;
import org.apache.hc.core5.util.Timeout;

/** Apache HttpClient 5, the asynchronous one. */
class AsyncWatchedAsBareTest extends WatchedAsBareContract {

    @Override
    protected Client client(boolean watched) {
        var credentials = new BasicCredentialsProvider();
        credentials.setCredentials(
                new AuthScope(null, -1), new UsernamePasswordCredentials("ada", "watering".toCharArray()));
        HttpAsyncClientBuilder builder = HttpAsyncClients.custom()
                .setDefaultCredentialsProvider(credentials)
                .setIOReactorConfig(IOReactorConfig.custom()
                        .setSelectInterval(TimeValue.ofMilliseconds(20)) // how often it looks at the clock
                        .build())
                .setConnectionManager(PoolingAsyncClientConnectionManagerBuilder.create()
                        .setMaxConnPerRoute(300)
                        .setMaxConnTotal(300)
                        .setDefaultConnectionConfig(ConnectionConfig.custom()
                                .setSocketTimeout(Timeout.ofMilliseconds(patience.toMillis()))
                                .setConnectTimeout(Timeout.ofMilliseconds(connecting.toMillis()))
                                .build())
                        .build())
                .addRequestInterceptorLast((request, entity, context) -> request.addHeader("X-Before", "1"));
        if (watched) VerbaleHttpClient5.watch(VerbaleHttpClient5.watch(builder));
        CloseableHttpAsyncClient client = builder.addRequestInterceptorLast(
                        (request, entity, context) -> request.addHeader("X-Behind", "1"))
                .build();
        client.start();
        return new Client() {
            @Override
            public Answer send(Scenario scenario, String url, Reader reader) throws Throwable {
                if (scenario.address().equals("/endless"))
                    return new Answer(0, "it gives a response when it is whole", "");
                reader.readsWhole();
                try {
                    SimpleHttpResponse response = client.execute(
                                    new BasicRequestProducer(request(scenario, url), body(scenario)),
                                    SimpleResponseConsumer.create(),
                                    null)
                            .get();
                    return new Answer(
                            response.getCode(), response.getClass().getName(), reader.whole(response.getBodyBytes()));
                } catch (ExecutionException failed) {
                    throw failed.getCause();
                }
            }

            @Override
            public void close() throws Exception {
                client.close();
            }
        };
    }

    private static HttpRequest request(Scenario scenario, String url) {
        var request = new BasicHttpRequest(scenario.method(), java.net.URI.create(url));
        scenario.headers().forEach((name, value) -> {
            if (!name.equals("Content-Type")) request.setHeader(name, value);
        });
        return request;
    }

    private static AsyncEntityProducer body(Scenario scenario) {
        if (scenario.streamed() == 0 && scenario.body().length == 0) return null;
        ContentType type = ContentType.parse(scenario.headers().get("Content-Type"));
        byte[] body = scenario.streamed() > 0 ? new byte[scenario.streamed() * 1_000_000] : scenario.body();
        return new BasicAsyncEntityProducer(body, type);
    }

    @Override
    protected boolean isReadyOnceItAnswered() {
        return false;
    }

    @Override
    protected Set<String> unseen() {
        return Set.of();
    }
}
