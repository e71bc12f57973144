package dev.verbale.okhttp;

import dev.verbale.Exchange;
import java.io.IOException;
import okhttp3.Interceptor;
import okhttp3.Response;

/** Stands around a call: records what never reaches the wire. */
final class CallInterceptor implements Interceptor {

    private final Calls calls;

    CallInterceptor(Calls calls) {
        this.calls = calls;
    }

    @Override
    public Response intercept(Chain chain) throws IOException {
        CallEvents events = calls.of(chain.call());
        events.begin(chain.request());
        Response response;
        try {
            response = chain.proceed(chain.request());
        } catch (IOException failure) {
            events.failed(failure);
            throw failure;
        }
        Exchange unsent = events.unsent();
        if (unsent == null) return response;
        if (response.cacheResponse() != null) unsent.attribute("answered by", "the cache");
        chain.request().headers().forEach(one -> unsent.requestHeader(one.getFirst(), one.getSecond()));
        return HopInterceptor.answered(response, unsent);
    }
}
