package dev.verbale.httpclient5;

import dev.verbale.http.difficult.Client;
import dev.verbale.http.difficult.Scenario;
import dev.verbale.http.difficult.WatchedAsBareContract;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.util.Set;
import org.apache.hc.client5.http.auth.AuthScope;
import org.apache.hc.client5.http.auth.UsernamePasswordCredentials;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.impl.auth.BasicCredentialsProvider;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.CloseableHttpResponse;
import org.apache.hc.client5.http.impl.classic.HttpClientBuilder;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.io.entity.ByteArrayEntity;
import org.apache.hc.core5.http.io.entity.InputStreamEntity;
import org.apache.hc.core5.util.Timeout;

/** Apache HttpClient 5. */
class WatchedAsBareTest extends WatchedAsBareContract {

    @Override
    protected Client client(boolean watched) {
        var credentials = new BasicCredentialsProvider();
        credentials.setCredentials(
                new AuthScope(null, -1), new UsernamePasswordCredentials("ada", "watering".toCharArray()));
        HttpClientBuilder builder = HttpClients.custom()
                .setDefaultCredentialsProvider(credentials)
                .setConnectionManager(PoolingHttpClientConnectionManagerBuilder.create()
                        .setMaxConnPerRoute(300)
                        .setMaxConnTotal(300)
                        .setDefaultConnectionConfig(ConnectionConfig.custom()
                                .setSocketTimeout(Timeout.ofMilliseconds(patience.toMillis()))
                                .setConnectTimeout(Timeout.ofMilliseconds(connecting.toMillis()))
                                .build())
                        .build())
                .addRequestInterceptorLast((request, entity, context) -> request.addHeader("X-Before", "1"));
        if (watched) VerbaleHttpClient5.watch(builder);
        CloseableHttpClient client = builder.addRequestInterceptorLast(
                        (request, entity, context) -> request.addHeader("X-Behind", "1"))
                .build();
        return new Client() {
            @Override
            @SuppressWarnings("deprecation") // the way in which a suite can leave a response unread
            public Answer send(Scenario scenario, String url, Reader reader) throws Throwable {
                HttpUriRequestBase request = request(scenario, url);
                CloseableHttpResponse response = client.execute(request);
                try {
                    HttpEntity entity = response.getEntity();
                    String type = response.getClass().getName();
                    boolean endless = scenario.address().equals("/endless");
                    String read = reader.read(
                            entity == null ? null : endless ? left(entity.getContent(), request) : entity.getContent());
                    return new Answer(response.getCode(), type, read);
                } finally {
                    response.close();
                }
            }

            @Override
            public void close() throws Exception {
                client.close();
            }
        };
    }

    /** Closed by itself, it would be read to its end first. */
    private static InputStream left(InputStream body, HttpUriRequestBase request) {
        return new FilterInputStream(body) {
            @Override
            public void close() throws IOException {
                request.abort();
                super.close();
            }
        };
    }

    static HttpUriRequestBase request(Scenario scenario, String url) {
        var request = new HttpUriRequestBase(scenario.method(), URI.create(url));
        String type = scenario.headers().get("Content-Type");
        scenario.headers().forEach((name, value) -> {
            if (!name.equals("Content-Type")) request.setHeader(name, value);
        });
        if (scenario.streamed() > 0)
            request.setEntity(new InputStreamEntity(Client.zeros(scenario.streamed()), ContentType.parse(type)));
        else if (scenario.body().length > 0)
            request.setEntity(new ByteArrayEntity(scenario.body(), ContentType.parse(type)));
        return request;
    }

    @Override
    protected Set<String> unseen() {
        return Set.of();
    }
}
