package dev.verbale.otlp;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import io.opentelemetry.proto.collector.logs.v1.ExportLogsServiceRequest;
import io.opentelemetry.proto.collector.trace.v1.ExportTraceServiceRequest;
import io.opentelemetry.proto.logs.v1.LogRecord;
import io.opentelemetry.proto.trace.v1.Span;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.Executors;
import java.util.zip.GZIPInputStream;

/** Stands in for a collector: decodes the protocol by its published messages. */
final class Collector implements AutoCloseable {

    final List<Span> spans = new ArrayList<>();
    final List<LogRecord> logs = new ArrayList<>();
    final Map<String, String> about = new TreeMap<>();
    final List<String> authorizations = new ArrayList<>();

    private final HttpServer server;

    /** What it answers. */
    volatile int status = 200;

    /** After how many requests it does so; before that 200. */
    volatile int afterRequests;

    private int requests;

    Collector() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 50);
        server.createContext("/base/v1/traces", this::traces);
        server.createContext("/base/v1/logs", this::logs);
        server.setExecutor(Executors.newSingleThreadExecutor(work -> {
            var thread = new Thread(work, "collector");
            thread.setDaemon(true);
            return thread;
        }));
        server.start();
    }

    URI address() {
        return URI.create("http://127.0.0.1:" + server.getAddress().getPort() + "/base/");
    }

    private void traces(HttpExchange exchange) throws IOException {
        var request = ExportTraceServiceRequest.parseFrom(body(exchange));
        request.getResourceSpansList().forEach(resource -> {
            resource.getResource()
                    .getAttributesList()
                    .forEach(one -> about.put(one.getKey(), one.getValue().getStringValue()));
            resource.getScopeSpansList().forEach(scope -> spans.addAll(scope.getSpansList()));
        });
        answer(exchange);
    }

    private void logs(HttpExchange exchange) throws IOException {
        var request = ExportLogsServiceRequest.parseFrom(body(exchange));
        request.getResourceLogsList()
                .forEach(resource ->
                        resource.getScopeLogsList().forEach(scope -> logs.addAll(scope.getLogRecordsList())));
        answer(exchange);
    }

    private InputStream body(HttpExchange exchange) throws IOException {
        authorizations.add(String.valueOf(exchange.getRequestHeaders().getFirst("Authorization")));
        boolean isPacked = "gzip".equals(exchange.getRequestHeaders().getFirst("Content-Encoding"));
        return isPacked ? new GZIPInputStream(exchange.getRequestBody()) : exchange.getRequestBody();
    }

    private void answer(HttpExchange exchange) throws IOException {
        int code = ++requests > afterRequests ? status : 200;
        exchange.sendResponseHeaders(code, -1);
        exchange.close();
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
