package dev.verbale.httpclient5;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.http.ExchangeContract;
import java.util.Map;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.io.entity.ByteArrayEntity;
import org.apache.hc.core5.http.io.entity.EntityUtils;
import org.junit.jupiter.api.Test;

/** Apache HttpClient 5. */
class VerbaleHttpClient5Test extends ExchangeContract {

    private final CloseableHttpClient client =
            VerbaleHttpClient5.watch(HttpClients.custom()).build();

    @Override
    protected String client() {
        return "Apache HttpClient";
    }

    @Override
    protected byte[] send(String method, String url, Map<String, String> headers, byte[] body) throws Exception {
        var request = new HttpUriRequestBase(method, java.net.URI.create(url));
        headers.forEach(request::setHeader);
        if (body.length > 0)
            request.setEntity(new ByteArrayEntity(body, ContentType.parse(headers.get("Content-Type"))));
        return client.execute(request, response -> EntityUtils.toByteArray(response.getEntity()));
    }

    @Test
    void a_response_that_nobody_reads_is_told_when_it_is_closed() throws Exception {
        client.execute(new HttpUriRequestBase("GET", java.net.URI.create(GARDEN.address("/image"))), response -> null);

        assertThat(GARDEN.exchanges()).extracting(GARDEN::line).containsExactly("GET /image 200");
    }
}
