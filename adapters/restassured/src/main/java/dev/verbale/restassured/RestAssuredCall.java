package dev.verbale.restassured;

import dev.verbale.spi.AdapterExchange;
import dev.verbale.spi.Capture;
import java.time.Duration;
import java.util.Locale;
import org.apache.http.Header;
import org.apache.http.HttpHost;
import org.apache.http.HttpRequest;
import org.apache.http.HttpResponse;
import org.apache.http.protocol.HttpContext;
import org.apache.http.protocol.HttpCoreContext;
import org.jspecify.annotations.Nullable;

/**
 * A request of REST Assured on its way: one exchange for each request that the client underneath sends for it, redirects and
 * answers to a challenge among them. It is sent on the thread that asks, which is how the client's own interceptors find it.
 */
final class RestAssuredCall {

    private static final ThreadLocal<RestAssuredCall> UNDER_WAY = new ThreadLocal<>();
    private static final String TRACE_PARENT = "traceparent";

    private final @Nullable RestAssuredCall outer = UNDER_WAY.get();
    private final Capture recorder;
    private AdapterExchange exchange;
    private @Nullable HttpRequest sent;
    private @Nullable ReadAheadStream response;
    private boolean answered;
    private long begun;

    private RestAssuredCall(Capture recorder, String method, String address) {
        this.recorder = recorder;
        this.exchange = begin(method, address);
    }

    /** It begins on this thread, which looks for the host and connects before it sends anything. */
    static RestAssuredCall begin(Capture recorder, String method, String address) {
        var call = new RestAssuredCall(recorder, method, address);
        UNDER_WAY.set(call);
        return call;
    }

    static @Nullable RestAssuredCall underWay() {
        return UNDER_WAY.get();
    }

    /** The thread sends nothing more for it. */
    void leave() {
        if (outer == null) UNDER_WAY.remove();
        else UNDER_WAY.set(outer);
    }

    private AdapterExchange begin(String method, String address) {
        AdapterExchange begins = recorder.exchange(method, address).client("REST Assured");
        begun = System.nanoTime(); // no part of it is longer than the whole
        return begins;
    }

    /** The exchange of the last request. */
    AdapterExchange last() {
        return exchange;
    }

    boolean isSent() {
        return sent != null;
    }

    /** The client is about to send {@code request}, to which others may still add headers. */
    AdapterExchange sends(HttpRequest request, HttpContext context) {
        String address = address(request, context);
        if (sent == null) exchange.url(address);
        else {
            exchange.ended(); // whatever of its response nobody wanted
            exchange = begin(request.getRequestLine().getMethod(), address);
        }
        sent = request;
        answered = false;
        if (!request.containsHeader(TRACE_PARENT)) {
            String traceParent = exchange.traceParent();
            if (traceParent != null) request.addHeader(TRACE_PARENT, traceParent);
        }
        return exchange;
    }

    /** The same request for the same hop is as it was sent now. */
    AdapterExchange answers(HttpResponse response) {
        recordRequest();
        answered = true;
        exchange.timing("first byte", Duration.ofNanos(System.nanoTime() - begun))
                .status(response.getStatusLine().getStatusCode())
                .protocol(response.getProtocolVersion().toString().toUpperCase(Locale.ROOT));
        for (Header header : response.getAllHeaders()) exchange.responseHeader(header.getName(), text(header));
        return exchange;
    }

    void respondsWith(ReadAheadStream body) {
        response = body;
    }

    /** From now on whoever reads the response is the test. */
    void handOver() {
        if (response != null) response.handOver();
    }

    /** The client gave up. */
    void failed(Throwable failure) {
        if (!answered) recordRequest();
        exchange.failed(failure);
    }

    private void recordRequest() {
        HttpRequest request = sent;
        if (request == null) return;
        exchange.clearRequestHeaders();
        for (Header header : request.getAllHeaders()) exchange.requestHeader(header.getName(), text(header));
    }

    private static String text(Header header) {
        return header.getValue() == null ? "" : header.getValue();
    }

    private static String address(HttpRequest request, HttpContext context) {
        String uri = request.getRequestLine().getUri();
        boolean isAbsolute = !uri.startsWith("/") && !uri.equals("*"); // through a proxy
        HttpHost host = HttpCoreContext.adapt(context).getTargetHost();
        return isAbsolute || host == null ? uri : host.toURI() + uri;
    }
}
