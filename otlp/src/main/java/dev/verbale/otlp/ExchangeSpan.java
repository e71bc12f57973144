package dev.verbale.otlp;

import dev.verbale.event.ExchangeMade;
import dev.verbale.results.Entry;
import dev.verbale.results.reason.Endpoint;
import io.opentelemetry.api.trace.Span;
import io.opentelemetry.api.trace.SpanBuilder;
import io.opentelemetry.api.trace.SpanContext;
import io.opentelemetry.api.trace.SpanKind;
import io.opentelemetry.api.trace.StatusCode;
import io.opentelemetry.api.trace.TraceFlags;
import io.opentelemetry.api.trace.TraceState;
import io.opentelemetry.api.trace.Tracer;
import io.opentelemetry.context.Context;
import java.net.URI;
import java.net.URISyntaxException;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * An exchange as a span of a client, by the semantic conventions for HTTP (1.23 and later, stable): a name of few values, required
 * attributes, and the trace of whoever answered as a link.
 */
final class ExchangeSpan {

    /** Any other is {@code _OTHER}. */
    private static final Set<String> METHODS =
            Set.of("CONNECT", "DELETE", "GET", "HEAD", "OPTIONS", "PATCH", "POST", "PUT", "QUERY", "TRACE");

    private static final Map<String, Integer> PORTS = Map.of("http", 80, "https", 443, "ws", 80, "wss", 443);
    private static final Pattern CREDENTIALS = Pattern.compile("^(\\w+://)[^/@?#]*@");
    private static final Pattern TYPE = Pattern.compile("[\\w.$]+");
    private static final Pattern TRACE_PARENT = Pattern.compile("\\w\\w-([0-9a-f]{32})-([0-9a-f]{16})-(\\w\\w)");

    private ExchangeSpan() {}

    static void add(Entry.ExchangeEntry entry, Span in, Tracer tracer) {
        ExchangeMade made = entry.made();
        String method = made.request().method();
        boolean isKnown = METHODS.contains(method);
        String template = Endpoint.path(made.request().url(), "{}");
        SpanBuilder span = tracer.spanBuilder((isKnown ? method : "HTTP") + (template.isEmpty() ? "" : " " + template))
                .setParent(Context.root().with(in))
                .setSpanKind(SpanKind.CLIENT)
                .setStartTimestamp(entry.at())
                .setAttribute("http.request.method", isKnown ? method : "_OTHER")
                .setAttribute(
                        "url.full", CREDENTIALS.matcher(made.request().url()).replaceFirst("$1REDACTED:REDACTED@"))
                .setAttribute("verbale.client", made.client());
        if (!isKnown) span.setAttribute("http.request.method_original", method);
        if (!template.isEmpty()) span.setAttribute("url.template", template);
        server(span, made.request().url());
        version(span, made.protocol());
        if (made.status() > 0) span.setAttribute("http.response.status_code", (long) made.status());
        String error = error(made);
        if (error != null) span.setAttribute("error.type", error);
        if (made.trace() != null)
            span.setAttribute("verbale.trace", made.trace().id());
        link(span, made);
        Span begun = span.startSpan();
        if (error != null) begun.setStatus(StatusCode.ERROR, made.failure() == null ? "" : made.failure());
        begun.end(entry.at().plus(entry.duration()));
    }

    private static void server(SpanBuilder span, String url) {
        try {
            var address = new URI(url);
            if (address.getHost() == null) return;
            span.setAttribute("server.address", address.getHost());
            String scheme = String.valueOf(address.getScheme()).toLowerCase(Locale.ROOT);
            int port = address.getPort() < 0 ? PORTS.getOrDefault(scheme, -1) : address.getPort();
            if (port >= 0) span.setAttribute("server.port", (long) port);
        } catch (URISyntaxException none) {
            // then nobody knows
        }
    }

    /** {@code HTTP/1.1} is the version 1.1 of the protocol http. */
    private static void version(SpanBuilder span, @Nullable String protocol) {
        if (protocol == null) return;
        int slash = protocol.indexOf('/');
        if (slash > 0) span.setAttribute("network.protocol.version", protocol.substring(slash + 1));
    }

    /** The type of what was thrown, or the status; null where it went well. */
    private static @Nullable String error(ExchangeMade made) {
        if (made.failure() == null) return made.status() >= 400 ? String.valueOf(made.status()) : null;
        Matcher type = TYPE.matcher(made.failure());
        return type.lookingAt() && type.group().contains(".") ? type.group() : "_OTHER";
    }

    private static void link(SpanBuilder span, ExchangeMade made) {
        for (ExchangeMade.Header header : made.request().headers()) {
            Matcher trace = TRACE_PARENT.matcher(header.value());
            if (!header.name().equalsIgnoreCase("traceparent") || !trace.matches()) continue;
            span.addLink(SpanContext.createFromRemoteParent(
                    trace.group(1), trace.group(2), TraceFlags.fromHex(trace.group(3), 0), TraceState.getDefault()));
            return;
        }
    }
}
