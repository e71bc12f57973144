package dev.verbale.restassured;

import dev.verbale.recorder.Beginning;
import dev.verbale.recorder.Exchange;
import dev.verbale.recorder.Recorder;
import io.restassured.filter.FilterContext;
import io.restassured.filter.OrderedFilter;
import io.restassured.http.Header;
import io.restassured.response.Response;
import io.restassured.specification.FilterableRequestSpecification;
import io.restassured.specification.FilterableResponseSpecification;
import io.restassured.specification.MultiPartSpecification;
import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
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
 * <p>It stands behind the filters that change a request, and tells what these made of it. What {@code then()} asserts of an
 * answer is told as checks of the exchange, one by one.
 */
public final class VerbaleFilter implements OrderedFilter {

    private static final String NAME = "REST Assured";
    private static final String UNSEEN = "a stream, which can be read once and is not looked at";
    private static final String TRACE_PARENT = "traceparent";
    /** Of a length in bytes: what is longer is not read into memory for the minutes alone. */
    private static final int DIGITS_THAT_FIT = 8;

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
        String traceParent = request.getHeaders().hasHeaderWithName(TRACE_PARENT) ? null : exchange.traceParent();
        if (traceParent != null) request.header(TRACE_PARENT, traceParent);
        try {
            tell(request, exchange);
        } catch (RuntimeException odd) { // what the suite sends may throw when it is asked for its text
            exchange.attribute("request", "could not be told whole: " + odd);
        }
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
        String version =
                response.getStatusLine() == null ? "" : response.getStatusLine().replaceFirst(" .*", "");
        if (version.startsWith("HTTP/")) exchange.protocol(version);
        for (Header header : response.getHeaders()) exchange.responseHeader(header.getName(), header.getValue());
        body(response, exchange);
        return TellingChecks.of(response, exchange);
    }

    /** It is read here and kept by the response, from which the test can still read it. */
    private static void body(Response response, Exchange exchange) {
        String length = response.getHeader("Content-Length");
        if (length != null && length.length() > DIGITS_THAT_FIT) {
            exchange.attribute("body", length + " bytes, left to the test").ended();
            return;
        }
        try {
            byte[] body = response.asByteArray();
            if (body.length > 0)
                exchange.responseBody(body, response.getContentType() == null ? "" : response.getContentType());
            exchange.ended();
        } catch (Throwable halfAnAnswer) { // the test meets it where it reads; checked ones too, Groovy throws them so
            if (halfAnAnswer instanceof VirtualMachineError fatal) throw fatal;
            exchange.failed(halfAnAnswer);
        }
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
        Object body = request.getBody();
        if (body == null) form(request.getFormParams(), type, exchange);
        else if (body instanceof InputStream) exchange.attribute("request body", UNSEEN);
        else exchange.requestBody(beginning(body, exchange), type);
        for (MultiPartSpecification part : request.getMultiPartParams()) part(part, exchange);
    }

    private static void form(@Nullable Map<String, ?> form, String type, Exchange exchange) {
        if (form == null || form.isEmpty()) return;
        String text = form.entrySet().stream()
                .map(field -> field.getKey() + "=" + field.getValue())
                .collect(Collectors.joining("&"));
        exchange.requestBody(text.getBytes(StandardCharsets.UTF_8), type);
    }

    private static void part(MultiPartSpecification part, Exchange exchange) {
        String name = part.getControlName();
        if (part.getContent() instanceof InputStream) {
            exchange.attribute("part " + name, UNSEEN);
            return;
        }
        String type = part.getMimeType() == null ? "" : part.getMimeType();
        String file = part.hasFileName() ? part.getFileName() : null;
        exchange.requestPart(name, file, beginning(part.getContent(), exchange), type);
    }

    /** Of a file as much as is kept, however long it is. */
    private static Beginning beginning(Object content, Exchange exchange) {
        Beginning beginning = exchange.beginning();
        if (content instanceof File file) {
            try {
                beginning.read(file.toPath());
            } catch (IOException unreadable) {
                exchange.attribute(
                        "request body", "cannot be read: " + unreadable); // the client is about to say so too
            }
            return beginning;
        }
        byte[] bytes =
                content instanceof byte[] there ? there : content.toString().getBytes(StandardCharsets.UTF_8);
        beginning.add(bytes, 0, bytes.length);
        return beginning;
    }
}
