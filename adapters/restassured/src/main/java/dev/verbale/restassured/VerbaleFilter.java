package dev.verbale.restassured;

import dev.verbale.recorder.Exchange;
import dev.verbale.recorder.Recorder;
import io.restassured.filter.FilterContext;
import io.restassured.filter.OrderedFilter;
import io.restassured.http.Header;
import io.restassured.response.Response;
import io.restassured.specification.FilterableRequestSpecification;
import io.restassured.specification.FilterableResponseSpecification;
import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.time.Duration;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Makes REST Assured tell its exchanges. For all requests, or for one:
 *
 * <pre>{@code
 * RestAssured.filters(new VerbaleFilter());
 * given().filter(new VerbaleFilter()).get("/api/seeds");
 * }</pre>
 *
 * <p>It stands behind the filters that change a request, and tells what these made of it.
 */
public final class VerbaleFilter implements OrderedFilter {

    private static final String NAME = "REST Assured";
    private static final int LAST_BUT_SENDING = OrderedFilter.LOWEST_PRECEDENCE - 1_000;

    @Override
    public int getOrder() {
        return LAST_BUT_SENDING;
    }

    @Override
    public Response filter(
            FilterableRequestSpecification request, FilterableResponseSpecification expected, FilterContext context) {
        Recorder recorder = Recorder.current();
        if (!recorder.isRecording()) return context.next(request, expected);
        Exchange exchange =
                recorder.exchange(request.getMethod(), request.getURI()).client(NAME);
        tell(request, exchange);
        long begun = System.nanoTime();
        Response response;
        try {
            response = context.next(request, expected);
        } catch (Throwable failure) { // checked ones too: Groovy throws them without a word
            exchange.failed(failure);
            throw failure;
        }
        exchange.timing("first byte", Duration.ofNanos(System.nanoTime() - begun));
        exchange.status(response.getStatusCode());
        for (Header header : response.getHeaders()) exchange.responseHeader(header.getName(), header.getValue());
        byte[] body = response.asByteArray(); // kept by the response, which the test can still read
        if (body.length > 0)
            exchange.responseBody(body, response.getContentType() == null ? "" : response.getContentType());
        exchange.ended();
        return response;
    }

    private static void tell(FilterableRequestSpecification request, Exchange exchange) {
        for (Header header : request.getHeaders()) exchange.requestHeader(header.getName(), header.getValue());
        if (request.getCookies().exist())
            exchange.requestHeader(
                    "Cookie",
                    request.getCookies().asList().stream()
                            .map(cookie -> cookie.getName() + "=" + cookie.getValue())
                            .collect(Collectors.joining("; ")));
        String type = request.getContentType() == null ? "" : request.getContentType();
        byte[] body = body(request);
        if (body != null) exchange.requestBody(body, type);
        for (var part : request.getMultiPartParams())
            exchange.attribute(
                    "part " + part.getControlName(),
                    (part.getFileName() == null ? "" : part.getFileName() + ", ") + part.getMimeType());
    }

    private static byte @Nullable [] body(FilterableRequestSpecification request) {
        Object body = request.getBody();
        if (body instanceof byte[] bytes) return bytes;
        if (body instanceof File file) return file(file);
        if (body != null) return body.toString().getBytes(StandardCharsets.UTF_8);
        Map<String, ?> form = request.getFormParams();
        if (form == null || form.isEmpty()) return null;
        return form.entrySet().stream()
                .map(field -> field.getKey() + "=" + field.getValue())
                .collect(Collectors.joining("&"))
                .getBytes(StandardCharsets.UTF_8);
    }

    private static byte @Nullable [] file(File file) {
        try {
            return Files.readAllBytes(file.toPath());
        } catch (IOException unreadable) {
            return null; // the client is about to say so
        }
    }
}
