package dev.verbale.spring;

import dev.verbale.BoundedBuffer;
import dev.verbale.Exchange;
import dev.verbale.spi.Capture;
import java.io.IOException;
import java.io.OutputStream;
import java.net.URI;
import java.time.Duration;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpMethod;
import org.springframework.http.client.ClientHttpRequest;
import org.springframework.http.client.ClientHttpResponse;

/** A request that hands everything on, and records its exchange. */
class CapturedRequest implements ClientHttpRequest {

    private static final String TRACE_PARENT = "traceparent";

    private final ClientHttpRequest request;
    private @Nullable Exchange exchange;
    private @Nullable OutputStream body;

    CapturedRequest(ClientHttpRequest request) {
        this.request = request;
    }

    static String type(HttpHeaders headers) {
        String type = headers.getFirst(HttpHeaders.CONTENT_TYPE);
        return type == null ? "" : type;
    }

    /** The exchange begins with the first byte of its body, or when it is sent. */
    private Exchange exchange() {
        Exchange begun = exchange;
        if (begun == null) {
            begun = Capture.current()
                    .exchange(request.getMethod().name(), request.getURI().toString())
                    .client("Spring")
                    .attribute("unseen", "headers that the client underneath sets by itself");
            exchange = begun;
        }
        return begun;
    }

    /** {@code out}, whatever is written to which is captured. */
    OutputStream captured(OutputStream out) {
        BoundedBuffer captured = exchange().buffer(); // a new one where it is sent again
        exchange().requestBody(captured, "");
        return captured.through(out);
    }

    @Override
    public OutputStream getBody() throws IOException {
        OutputStream known = body;
        if (known == null) {
            known = captured(request.getBody());
            body = known;
        }
        return known;
    }

    @Override
    public ClientHttpResponse execute() throws IOException {
        Exchange sent = exchange();
        HttpHeaders headers = request.getHeaders();
        String traceParent = headers.getFirst(TRACE_PARENT) == null ? sent.traceParent() : null;
        if (traceParent != null) headers.set(TRACE_PARENT, traceParent);
        headers.forEach((name, values) -> values.forEach(value -> sent.requestHeader(name, value)));
        long begun = System.nanoTime();
        ClientHttpResponse response;
        try {
            response = request.execute();
        } catch (IOException | RuntimeException | Error failure) {
            sent.failed(failure);
            throw failure;
        }
        sent.timing("first byte", Duration.ofNanos(System.nanoTime() - begun));
        recordResponse(response, sent);
        return new CapturedResponse(response, sent);
    }

    /** A response that is too odd to be looked at is the caller's to meet. */
    private static void recordResponse(ClientHttpResponse response, Exchange sent) {
        try {
            sent.status(response.getStatusCode().value());
            response.getHeaders().forEach((name, values) -> values.forEach(value -> sent.responseHeader(name, value)));
        } catch (IOException | RuntimeException odd) {
            sent.attribute("response", "could not be read whole: " + odd);
        }
    }

    @Override
    public HttpMethod getMethod() {
        return request.getMethod();
    }

    @Override
    public URI getURI() {
        return request.getURI();
    }

    @Override
    public Map<String, Object> getAttributes() {
        return request.getAttributes();
    }

    @Override
    public HttpHeaders getHeaders() {
        return request.getHeaders();
    }
}
