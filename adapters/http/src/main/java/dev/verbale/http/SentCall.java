package dev.verbale.http;

import dev.verbale.BoundedBuffer;
import dev.verbale.spi.AdapterExchange;
import java.net.http.HttpClient;
import java.net.http.HttpHeaders;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.ResponseInfo;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A call of the client: one request, or several where the client follows redirects or answers a challenge. Of these it
 * tells with its last response only, so what came is held until that is known.
 */
final class SentCall {

    static final String TRACE_PARENT = "traceparent";

    private static final String UNSEEN = "unseen";
    private static final String WHAT_IS_UNSEEN = "headers that the client sets by itself";
    private static final int UNAUTHORIZED = 401;
    private static final int PROXY_UNAUTHORIZED = 407;

    private final AdapterExchange first;
    private final long begun = System.nanoTime();
    private final boolean hasAuthenticator;
    /** Whose answer it is: known once the client says how it got there, or at once where it only goes one way. */
    private @Nullable AdapterExchange answered;

    private String requestType = "";
    private @Nullable BoundedBuffer requestBody;
    private @Nullable ResponseInfo answer;
    private @Nullable BoundedBuffer responseBody;
    private boolean over;
    private boolean left;

    SentCall(AdapterExchange first, HttpClient client) {
        this.first = first;
        this.hasAuthenticator = client.authenticator().isPresent();
        boolean straight = client.followRedirects() == HttpClient.Redirect.NEVER && !hasAuthenticator;
        if (straight) answered = first;
        else first.onTestEnd(this::recordWhatIsKnown);
    }

    /**
     * Tells the request.
     *
     * @param cookies that the client is about to add
     * @return the header by which its trace is found; null where none is wanted, or it has one
     */
    synchronized @Nullable String sends(HttpRequest request, List<String> cookies) {
        first.attribute(UNSEEN, WHAT_IS_UNSEEN);
        headers(first, request.headers());
        for (String cookie : cookies) first.requestHeader("Cookie", cookie);
        requestType = request.headers().firstValue("Content-Type").orElse("");
        if (request.headers().firstValue(TRACE_PARENT).isPresent()) return null;
        String traceParent = first.traceParent();
        if (traceParent != null) first.requestHeader(TRACE_PARENT, traceParent);
        return traceParent;
    }

    synchronized BoundedBuffer sendsBody() {
        BoundedBuffer captured = first.buffer();
        requestBody = captured;
        first.requestBody(captured, requestType);
        return captured;
    }

    synchronized BoundedBuffer answerBegins(ResponseInfo info) {
        first.timing("first byte", Duration.ofNanos(System.nanoTime() - begun));
        answer = info;
        BoundedBuffer captured = first.buffer();
        responseBody = captured;
        if (answered != null) recordResponse(answered);
        return captured;
    }

    synchronized void isComplete() {
        over = true;
        if (answered != null) end(answered);
    }

    private void end(AdapterExchange whose) {
        if (left) whose.attribute("body", "the test read no further");
        whose.ended();
    }

    synchronized void isLeft() {
        left = true;
        isComplete();
    }

    synchronized void failed(Throwable failure) {
        if (answered == null) recordResponse(first);
        (answered == null ? first : answered).failed(failure);
    }

    /** All that led to {@code response}, in the order in which it was sent. */
    synchronized void answeredBy(HttpResponse<?> response) {
        if (answered != null) return;
        Deque<HttpResponse<?>> way = new ArrayDeque<>(List.of(response));
        Optional<? extends HttpResponse<?>> before = response.previousResponse();
        while (before.isPresent()) {
            way.addFirst(before.get());
            before = before.get().previousResponse();
        }
        AdapterExchange last = first;
        for (HttpResponse<?> hop = way.removeFirst(); !way.isEmpty(); hop = way.removeFirst()) {
            HttpRequest following = way.element().request();
            AdapterExchange next =
                    last.next(following.method(), way.element().uri().toString());
            head(last, hop.statusCode(), hop.headers(), hop.version());
            last.ended();
            request(next, following, hop.statusCode());
            last = next;
        }
        answered = last;
        recordResponse(last);
        if (over) end(last);
    }

    private void request(AdapterExchange exchange, HttpRequest request, int after) {
        exchange.attribute(UNSEEN, WHAT_IS_UNSEEN);
        headers(exchange, request.headers());
        if (hasAuthenticator) { // it is what answers a challenge; the value would be masked
            if (after == UNAUTHORIZED) exchange.requestHeader("Authorization", "Basic");
            if (after == PROXY_UNAUTHORIZED) exchange.requestHeader("Proxy-Authorization", "Basic");
        }
        if (request.bodyPublisher().isPresent() && requestBody != null)
            exchange.requestBody(
                    requestBody, request.headers().firstValue("Content-Type").orElse(""));
    }

    private void recordResponse(AdapterExchange exchange) {
        ResponseInfo info = answer;
        BoundedBuffer body = responseBody;
        if (info == null || body == null) return;
        head(exchange, info.statusCode(), info.headers(), info.version());
        exchange.responseBody(body, info.headers().firstValue("Content-Type").orElse(""));
    }

    private synchronized void recordWhatIsKnown() {
        if (answered == null) recordResponse(first);
    }

    private static void headers(AdapterExchange exchange, HttpHeaders headers) {
        headers.map().forEach((name, values) -> values.forEach(value -> exchange.requestHeader(name, value)));
    }

    private static void head(AdapterExchange exchange, int status, HttpHeaders headers, HttpClient.Version version) {
        exchange.status(status).protocol(version == HttpClient.Version.HTTP_2 ? "HTTP/2" : "HTTP/1.1");
        headers.map().forEach((name, values) -> {
            if (!name.startsWith(":")) values.forEach(value -> exchange.responseHeader(name, value));
        });
    }
}
