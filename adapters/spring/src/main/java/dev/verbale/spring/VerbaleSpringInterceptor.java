package dev.verbale.spring;

import dev.verbale.recorder.Exchange;
import dev.verbale.recorder.Recorder;
import java.io.IOException;
import java.time.Duration;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpRequest;
import org.springframework.http.client.ClientHttpRequestExecution;
import org.springframework.http.client.ClientHttpRequestInterceptor;
import org.springframework.http.client.ClientHttpResponse;

/**
 * Makes Spring's {@code RestClient} and {@code RestTemplate} tell their exchanges:
 *
 * <pre>{@code
 * RestClient client = RestClient.builder().requestInterceptor(new VerbaleSpringInterceptor()).build();
 * restTemplate.getInterceptors().add(new VerbaleSpringInterceptor());
 * }</pre>
 *
 * <p>An exchange is written when its answer's body was read or closed. Where the client underneath follows redirects, they are
 * not seen here: watch that one instead.
 */
public final class VerbaleSpringInterceptor implements ClientHttpRequestInterceptor {

    private static final String TRACE_PARENT = "traceparent";

    @Override
    public ClientHttpResponse intercept(HttpRequest request, byte[] body, ClientHttpRequestExecution execution)
            throws IOException {
        Recorder recorder = Recorder.current();
        if (!recorder.isRecording()) return execution.execute(request, body);
        Exchange exchange = recorder.exchange(
                        request.getMethod().name(), request.getURI().toString())
                .client("Spring");
        String traceParent = request.getHeaders().getFirst(TRACE_PARENT) == null ? exchange.traceParent() : null;
        if (traceParent != null) request.getHeaders().set(TRACE_PARENT, traceParent);
        request.getHeaders().forEach((name, values) -> values.forEach(one -> exchange.requestHeader(name, one)));
        if (body.length > 0) exchange.requestBody(body, type(request.getHeaders()));
        long begun = System.nanoTime();
        try {
            ClientHttpResponse response = execution.execute(request, body);
            exchange.timing("first byte", Duration.ofNanos(System.nanoTime() - begun));
            exchange.status(response.getStatusCode().value());
            response.getHeaders().forEach((name, values) -> values.forEach(one -> exchange.responseHeader(name, one)));
            return new HeardResponse(response, exchange);
        } catch (IOException | RuntimeException failure) {
            exchange.failed(failure);
            throw failure;
        }
    }

    static String type(HttpHeaders headers) {
        String type = headers.getFirst(HttpHeaders.CONTENT_TYPE);
        return type == null ? "" : type;
    }
}
