package dev.verbale.okhttp;

import dev.verbale.Exchange;
import java.io.IOException;
import java.util.Locale;
import okhttp3.Interceptor;
import okhttp3.Request;
import okhttp3.RequestBody;
import okhttp3.Response;
import okhttp3.ResponseBody;
import org.jspecify.annotations.Nullable;

/** Stands at the wire: each request that is sent, with all its headers, and each response as it comes. */
final class HopInterceptor implements Interceptor {

    private static final String TRACE_PARENT = "traceparent";

    private final Calls calls;

    HopInterceptor(Calls calls) {
        this.calls = calls;
    }

    @Override
    public Response intercept(Chain chain) throws IOException {
        Exchange exchange = calls.of(chain.call()).send(chain.request());
        Request request = sent(chain.request(), exchange);
        request.headers().forEach(one -> exchange.requestHeader(one.getFirst(), one.getSecond()));
        try {
            return answered(chain.proceed(request), exchange);
        } catch (IOException failure) {
            exchange.failed(failure);
            throw failure;
        }
    }

    private static Request sent(Request request, Exchange exchange) {
        RequestBody body = request.body();
        String traceParent = request.header(TRACE_PARENT) == null ? exchange.traceParent() : null;
        if (body == null && traceParent == null) return request;
        Request.Builder changed = request.newBuilder();
        if (traceParent != null) changed.header(TRACE_PARENT, traceParent);
        // of a body that is still sent while its response comes there is no moment at which it is complete
        if (body != null && !body.isDuplex()) changed.method(request.method(), new CapturedRequestBody(body, exchange));
        return changed.build();
    }

    static Response answered(Response response, Exchange exchange) {
        exchange.status(response.code()).protocol(protocol(response));
        response.headers().forEach(one -> exchange.responseHeader(one.getFirst(), one.getSecond()));
        @Nullable ResponseBody body = response.body();
        if (body == null || response.code() == 101) { // another protocol goes on there
            exchange.ended();
            return response;
        }
        return response.newBuilder()
                .body(new CapturedResponseBody(body, exchange))
                .build();
    }

    private static String protocol(Response response) {
        String name = response.protocol().toString().toUpperCase(Locale.ROOT);
        return name.equals("H2") ? "HTTP/2" : name;
    }
}
