package dev.verbale.httpclient5;

import dev.verbale.spi.AdapterExchange;
import java.util.Locale;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.HttpRequest;
import org.apache.hc.core5.http.HttpResponse;

/** Tells the heads of requests and answers. */
final class Messages {

    private static final String TRACE_PARENT = "traceparent";

    private Messages() {}

    /** Adds the header by which its trace is found, where one is wanted. */
    static void request(HttpRequest request, AdapterExchange exchange) {
        exchange.client("Apache HttpClient");
        String traceParent = request.containsHeader(TRACE_PARENT) ? null : exchange.traceParent();
        if (traceParent != null) request.setHeader(TRACE_PARENT, traceParent);
        headers(request, exchange);
    }

    /** Once more, with what the client's own interceptors and the suite's added on the way. */
    static void requestAsSent(HttpRequest request, AdapterExchange exchange) {
        exchange.clearRequestHeaders();
        headers(request, exchange);
    }

    private static void headers(HttpRequest request, AdapterExchange exchange) {
        for (Header header : request.getHeaders()) exchange.requestHeader(header.getName(), text(header));
    }

    private static String text(Header header) {
        return header.getValue() == null ? "" : header.getValue();
    }

    static void response(HttpResponse response, AdapterExchange exchange) {
        exchange.status(response.getCode());
        if (response.getVersion() != null)
            exchange.protocol(
                    response.getVersion().toString().toUpperCase(Locale.ROOT).replace("HTTP/2.0", "HTTP/2"));
        for (Header header : response.getHeaders()) exchange.responseHeader(header.getName(), text(header));
    }
}
