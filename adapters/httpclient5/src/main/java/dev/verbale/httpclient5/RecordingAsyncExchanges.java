package dev.verbale.httpclient5;

import dev.verbale.BoundedBuffer;
import dev.verbale.Scope;
import dev.verbale.spi.AdapterExchange;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.Entered;
import java.io.IOException;
import java.time.Duration;
import org.apache.hc.client5.http.async.AsyncExecCallback;
import org.apache.hc.client5.http.async.AsyncExecChain;
import org.apache.hc.client5.http.async.AsyncExecChainHandler;
import org.apache.hc.core5.http.EntityDetails;
import org.apache.hc.core5.http.HttpException;
import org.apache.hc.core5.http.HttpRequest;
import org.apache.hc.core5.http.HttpResponse;
import org.apache.hc.core5.http.nio.AsyncDataConsumer;
import org.apache.hc.core5.http.nio.AsyncEntityProducer;
import org.jspecify.annotations.Nullable;

/** Records what the asynchronous client does, whose redirects and retries run on threads of its own. */
final class RecordingAsyncExchanges implements AsyncExecChainHandler {

    /** While a request is handed on, which is done by its thread; what comes of it may come on another by then. */
    private static final ThreadLocal<AdapterExchange> HANDS_ON = new ThreadLocal<>();

    private static final String SCOPE = "dev.verbale.scope";

    /** On the thread that makes the call: what comes of it belongs there, whatever thread it comes on. */
    static void called(
            HttpRequest request,
            @Nullable AsyncEntityProducer body,
            AsyncExecChain.Scope scope,
            AsyncExecChain chain,
            AsyncExecCallback callback)
            throws HttpException, IOException {
        scope.clientContext.setAttribute(SCOPE, AdapterRecorder.current().currentScope());
        chain.proceed(request, body, scope, callback);
    }

    @Override
    public void execute(
            HttpRequest request,
            @Nullable AsyncEntityProducer body,
            AsyncExecChain.Scope scope,
            AsyncExecChain chain,
            AsyncExecCallback callback)
            throws HttpException, IOException {
        if (HANDS_ON.get() != null) { // watched twice
            chain.proceed(request, body, scope, callback);
            return;
        }
        AdapterExchange exchange = begun(request, scope);
        AsyncEntityProducer captured = body == null ? null : new CapturedProducer(body, exchange);
        try {
            HANDS_ON.set(exchange);
            chain.proceed(request, captured, scope, new CapturingCallback(callback, request, exchange));
        } catch (HttpException | IOException | RuntimeException failure) {
            exchange.failed(failure);
            throw failure;
        } finally {
            HANDS_ON.remove();
        }
    }

    private static AdapterExchange begun(HttpRequest request, AsyncExecChain.Scope scope) {
        AdapterRecorder recorder = AdapterRecorder.current();
        Object caller = scope.clientContext.getAttribute(SCOPE);
        String address = scope.route.getTargetHost().toURI() + request.getPath();
        try (Entered here = recorder.enter(caller instanceof Scope known ? known : recorder.currentScope())) {
            AdapterExchange exchange = recorder.exchange(request.getMethod(), address);
            Messages.request(request, exchange);
            return exchange;
        }
    }

    private static final class CapturingCallback implements AsyncExecCallback {
        private final AsyncExecCallback callback;
        private final HttpRequest request;
        private final AdapterExchange exchange;
        private final long begun = System.nanoTime();

        CapturingCallback(AsyncExecCallback callback, HttpRequest request, AdapterExchange exchange) {
            this.callback = callback;
            this.request = request;
            this.exchange = exchange;
        }

        @Override
        public @Nullable AsyncDataConsumer handleResponse(HttpResponse response, @Nullable EntityDetails body)
                throws HttpException, IOException {
            exchange.timing("first byte", Duration.ofNanos(System.nanoTime() - begun));
            Messages.requestAsSent(request, exchange);
            Messages.response(response, exchange);
            if (body == null) exchange.ended(); // before the test goes on
            AsyncDataConsumer consumer = callback.handleResponse(response, body);
            if (consumer == null || body == null) return consumer;
            BoundedBuffer captured = exchange.buffer();
            exchange.responseBody(captured, body.getContentType() == null ? "" : body.getContentType());
            return new CapturingConsumer(consumer, exchange, captured);
        }

        @Override
        public void handleInformationResponse(HttpResponse response) throws HttpException, IOException {
            callback.handleInformationResponse(response);
        }

        @Override
        public void completed() {
            exchange.ended();
            callback.completed();
        }

        @Override
        public void failed(Exception failure) {
            Messages.requestAsSent(request, exchange);
            exchange.failed(failure);
            callback.failed(failure);
        }
    }
}
