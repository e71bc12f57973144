package dev.verbale.spring;

import dev.verbale.Exchange;
import java.io.IOException;
import java.io.InputStream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.client.ClientHttpResponse;

/** A response that the test reads, captured; the exchange ends with it. */
final class CapturedResponse implements ClientHttpResponse {

    private final ClientHttpResponse response;
    private final Exchange exchange;
    private @Nullable InputStream captured;

    CapturedResponse(ClientHttpResponse response, Exchange exchange) {
        this.response = response;
        this.exchange = exchange;
    }

    @Override
    public InputStream getBody() throws IOException {
        InputStream stream = captured;
        if (stream == null) {
            stream = exchange.responseBody(response.getBody(), CapturedRequest.type(getHeaders()));
            captured = stream;
        }
        return stream;
    }

    @Override
    public HttpHeaders getHeaders() {
        return response.getHeaders();
    }

    @Override
    public HttpStatusCode getStatusCode() throws IOException {
        return response.getStatusCode();
    }

    @Override
    public String getStatusText() throws IOException {
        return response.getStatusText();
    }

    @Override
    public void close() {
        try {
            response.close();
        } finally {
            exchange.ended();
        }
    }
}
