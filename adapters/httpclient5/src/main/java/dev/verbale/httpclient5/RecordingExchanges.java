package dev.verbale.httpclient5;

import dev.verbale.spi.AdapterExchange;
import dev.verbale.spi.Capture;
import java.io.IOException;
import java.time.Duration;
import org.apache.hc.client5.http.classic.ExecChain;
import org.apache.hc.client5.http.classic.ExecChainHandler;
import org.apache.hc.core5.http.ClassicHttpRequest;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.HttpException;

/** Stands where each request is on its way to a connection: behind redirects and retries, before the wire. */
final class RecordingExchanges implements ExecChainHandler {

    private static final String UNDER_WAY = "dev.verbale.exchange";

    private record UnderWay(AdapterExchange exchange, long begun) {}

    @Override
    public ClassicHttpResponse execute(ClassicHttpRequest request, ExecChain.Scope scope, ExecChain chain)
            throws IOException, HttpException {
        if (scope.clientContext.getAttribute(UNDER_WAY) != null) return chain.proceed(request, scope); // watched twice
        AdapterExchange exchange = Capture.current().exchange(request.getMethod(), address(request, scope));
        Messages.request(request, exchange);
        HttpEntity body = request.getEntity();
        long begun = System.nanoTime();
        scope.clientContext.setAttribute(UNDER_WAY, new UnderWay(exchange, begun));
        try {
            if (body != null) request.setEntity(new CapturedRequestEntity(body, exchange));
            ClassicHttpResponse response = chain.proceed(request, scope);
            Messages.requestAsSent(request, exchange);
            return answered(response, exchange, begun);
        } catch (IOException | HttpException | RuntimeException failure) {
            Messages.requestAsSent(request, exchange);
            exchange.failed(failure);
            throw failure;
        } finally {
            scope.clientContext.removeAttribute(UNDER_WAY);
            if (body != null) request.setEntity(body); // a retry sends the same request
        }
    }

    /** There is a connection now, a new one or one from the pool. */
    static ClassicHttpResponse connected(ClassicHttpRequest request, ExecChain.Scope scope, ExecChain chain)
            throws IOException, HttpException {
        if (scope.clientContext.getAttribute(UNDER_WAY) instanceof UnderWay one)
            one.exchange().timing("connect", Duration.ofNanos(System.nanoTime() - one.begun()));
        return chain.proceed(request, scope);
    }

    private static String address(ClassicHttpRequest request, ExecChain.Scope scope) {
        return scope.route.getTargetHost().toURI() + request.getPath();
    }

    private static ClassicHttpResponse answered(ClassicHttpResponse response, AdapterExchange exchange, long begun) {
        exchange.timing("first byte", Duration.ofNanos(System.nanoTime() - begun));
        Messages.response(response, exchange);
        if (response.getEntity() == null) exchange.ended();
        else response.setEntity(new CapturedResponseEntity(response.getEntity(), exchange));
        return response;
    }
}
