package dev.verbale.http;

import dev.verbale.recorder.Exchange;
import dev.verbale.recorder.Recorder;
import java.io.IOException;
import java.net.Authenticator;
import java.net.CookieHandler;
import java.net.ProxySelector;
import java.net.http.HttpClient;
import java.net.http.HttpHeaders;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandler;
import java.net.http.HttpResponse.PushPromiseHandler;
import java.net.http.WebSocket;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.Executor;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLParameters;
import org.jspecify.annotations.Nullable;

/** A client that hands everything on, and listens. */
final class WatchedClient extends HttpClient {

    private static final String NAME = "JDK HttpClient";
    private static final String TRACE_PARENT = "traceparent";

    private final HttpClient client;

    WatchedClient(HttpClient client) {
        this.client = client;
    }

    @Override
    public <T> HttpResponse<T> send(HttpRequest request, BodyHandler<T> handler)
            throws IOException, InterruptedException {
        Exchange exchange = begun(request);
        HttpRequest sent = sent(request, exchange);
        try {
            HttpResponse<T> response = client.send(sent, new HeardBodies<>(handler, exchange));
            redirects(response);
            return response;
        } catch (IOException | InterruptedException | RuntimeException failure) {
            exchange.failed(failure);
            throw failure;
        }
    }

    @Override
    public <T> CompletableFuture<HttpResponse<T>> sendAsync(HttpRequest request, BodyHandler<T> handler) {
        return sendAsync(request, handler, null);
    }

    @Override
    public <T> CompletableFuture<HttpResponse<T>> sendAsync(
            HttpRequest request, BodyHandler<T> handler, @Nullable PushPromiseHandler<T> pushed) {
        Exchange exchange = begun(request);
        return client.sendAsync(sent(request, exchange), new HeardBodies<>(handler, exchange), pushed)
                .whenComplete((response, failure) -> {
                    if (failure == null) redirects(response);
                    else exchange.failed(cause(failure));
                });
    }

    private static Throwable cause(Throwable failure) {
        return failure instanceof CompletionException && failure.getCause() != null ? failure.getCause() : failure;
    }

    private static Exchange begun(HttpRequest request) {
        Exchange exchange = Recorder.current()
                .exchange(request.method(), request.uri().toString())
                .client(NAME);
        return exchange;
    }

    private static void headers(HttpHeaders headers, Exchange exchange) {
        headers.map().forEach((name, values) -> values.forEach(value -> exchange.requestHeader(name, value)));
    }

    /** The same request, whose body is heard while it is sent, with the trace's header where one is wanted. */
    private static HttpRequest sent(HttpRequest request, Exchange exchange) {
        String traceParent = request.headers().firstValue(TRACE_PARENT).isPresent() ? null : exchange.traceParent();
        headers(request.headers(), exchange);
        if (traceParent != null) exchange.requestHeader(TRACE_PARENT, traceParent);
        Optional<HttpRequest.BodyPublisher> body = request.bodyPublisher().filter(one -> one.contentLength() != 0);
        if (traceParent == null && body.isEmpty()) return request;
        HttpRequest.Builder changed = HttpRequest.newBuilder(request, (name, value) -> true);
        if (traceParent != null) changed.header(TRACE_PARENT, traceParent);
        String type = request.headers().firstValue("Content-Type").orElse("");
        body.ifPresent(one -> changed.method(request.method(), new HeardRequestBody(one, exchange, type)));
        return changed.build();
    }

    /** Those that led here: the client has no more of them than their heads. */
    private static void redirects(HttpResponse<?> response) {
        Optional<? extends HttpResponse<?>> before = response.previousResponse();
        while (before.isPresent()) {
            HttpResponse<?> one = before.get();
            Exchange exchange = Recorder.current()
                    .exchange(one.request().method(), one.uri().toString())
                    .client(NAME)
                    .attribute("led to", response.uri().toString());
            headers(one.request().headers(), exchange);
            HeardBodies.head(exchange, one.statusCode(), one.headers(), one.version());
            exchange.ended();
            before = one.previousResponse();
        }
    }

    @Override
    public Optional<CookieHandler> cookieHandler() {
        return client.cookieHandler();
    }

    @Override
    public Optional<Duration> connectTimeout() {
        return client.connectTimeout();
    }

    @Override
    public Redirect followRedirects() {
        return client.followRedirects();
    }

    @Override
    public Optional<ProxySelector> proxy() {
        return client.proxy();
    }

    @Override
    public SSLContext sslContext() {
        return client.sslContext();
    }

    @Override
    public SSLParameters sslParameters() {
        return client.sslParameters();
    }

    @Override
    public Optional<Authenticator> authenticator() {
        return client.authenticator();
    }

    @Override
    public Version version() {
        return client.version();
    }

    @Override
    public Optional<Executor> executor() {
        return client.executor();
    }

    @Override
    public WebSocket.Builder newWebSocketBuilder() {
        return client.newWebSocketBuilder();
    }
}
