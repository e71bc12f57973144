package dev.verbale.http;

import dev.verbale.spi.AdapterExchange;
import dev.verbale.spi.Capture;
import java.io.IOException;
import java.net.Authenticator;
import java.net.CookieHandler;
import java.net.ProxySelector;
import java.net.http.HttpClient;
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

    private final HttpClient client;

    WatchedClient(HttpClient client) {
        this.client = client;
    }

    @Override
    public <T> HttpResponse<T> send(HttpRequest request, BodyHandler<T> handler)
            throws IOException, InterruptedException {
        if (request == null || handler == null)
            return client.send(request, handler); // which says what it thinks of that
        SentCall call = begun(request);
        try {
            HttpResponse<T> response = client.send(watched(request, call), new CapturedResponseBody<>(handler, call));
            call.answeredBy(response);
            return response;
        } catch (IOException | InterruptedException | RuntimeException | Error failure) {
            call.failed(failure);
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
        if (request == null || handler == null) return client.sendAsync(request, handler, pushed);
        SentCall call = begun(request);
        try {
            CompletableFuture<HttpResponse<T>> sent =
                    client.sendAsync(watched(request, call), new CapturedResponseBody<>(handler, call), pushed);
            var recorded = new CancelableFuture<HttpResponse<T>>(sent);
            sent.whenComplete((response, failure) -> {
                if (failure == null) call.answeredBy(response);
                else call.failed(cause(failure));
                if (failure == null) recorded.complete(response);
                else recorded.completeExceptionally(failure);
            });
            return recorded;
        } catch (RuntimeException | Error refused) {
            call.failed(refused);
            throw refused;
        }
    }

    private static Throwable cause(Throwable failure) {
        return failure instanceof CompletionException && failure.getCause() != null ? failure.getCause() : failure;
    }

    private SentCall begun(HttpRequest request) {
        AdapterExchange exchange = Capture.current()
                .exchange(request.method(), request.uri().toString())
                .client(NAME);
        return new SentCall(exchange, client);
    }

    /** The same request, whose body is captured while it is sent, with the trace's header where one is wanted. */
    private HttpRequest watched(HttpRequest request, SentCall call) {
        String traceParent = call.sends(request, Cookies.of(client, request.uri()));
        Optional<HttpRequest.BodyPublisher> body = request.bodyPublisher().filter(one -> one.contentLength() != 0);
        if (traceParent == null && body.isEmpty()) return request;
        HttpRequest.Builder changed = HttpRequest.newBuilder(request, (name, value) -> true);
        if (traceParent != null) changed.header(SentCall.TRACE_PARENT, traceParent);
        body.ifPresent(one -> changed.method(request.method(), new CapturedRequestBody(one, call)));
        return changed.build();
    }

    // Since Java 21, and called from there: without @Override, for this is compiled for 17.

    public void close() {
        LaterMethods.close(client);
    }

    public void shutdown() {
        LaterMethods.shutdown(client);
    }

    public void shutdownNow() {
        LaterMethods.shutdownNow(client);
    }

    public boolean isTerminated() {
        return LaterMethods.isTerminated(client);
    }

    public boolean awaitTermination(Duration limit) throws InterruptedException {
        return LaterMethods.awaitTermination(client, limit);
    }

    @Override
    public String toString() {
        return client.toString();
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
