package dev.verbale.restassured;

import dev.verbale.spi.AdapterExchange;
import org.apache.http.HttpConnection;
import org.apache.http.HttpEntity;
import org.apache.http.HttpEntityEnclosingRequest;
import org.apache.http.HttpRequest;
import org.apache.http.HttpRequestInterceptor;
import org.apache.http.HttpResponse;
import org.apache.http.HttpResponseInterceptor;
import org.apache.http.client.HttpClient;
import org.apache.http.impl.client.AbstractHttpClient;
import org.apache.http.protocol.HttpContext;
import org.apache.http.protocol.HttpCoreContext;

/**
 * Stands in the client underneath, where requests are as they are sent and answers as they come: before anybody unpacks them,
 * and for each hop of a redirect. It is the last place that REST Assured's public interface lets in.
 */
@SuppressWarnings("deprecation") // the client that REST Assured is built on
final class WireInterceptors implements HttpRequestInterceptor, HttpResponseInterceptor {

    private static final WireInterceptors ONLY = new WireInterceptors();

    private WireInterceptors() {}

    /** Once for each client, which a suite may share among its requests. */
    static void in(HttpClient client) {
        if (!(client instanceof AbstractHttpClient open)) return;
        synchronized (open) {
            for (int i = 0; i < open.getRequestInterceptorCount(); i++)
                if (open.getRequestInterceptor(i) == ONLY) return;
            open.addRequestInterceptor(ONLY);
            open.addResponseInterceptor(ONLY, 0);
        }
    }

    @Override
    public void process(HttpRequest request, HttpContext context) {
        RestAssuredCall call = RestAssuredCall.underWay();
        if (call == null) return;
        try {
            AdapterExchange exchange = call.sends(request, context);
            if (!(request instanceof HttpEntityEnclosingRequest enclosing)) return;
            HttpEntity body = enclosing.getEntity();
            if (body != null) enclosing.setEntity(new CapturedRequestEntity(body, exchange));
        } catch (RuntimeException odd) { // the request goes its way, whatever we make of it
            call.last().attribute("request", "could not be read whole: " + odd);
        }
    }

    @Override
    public void process(HttpResponse response, HttpContext context) {
        RestAssuredCall call = RestAssuredCall.underWay();
        if (call == null) return;
        try {
            AdapterExchange exchange = call.answers(response);
            HttpEntity body = response.getEntity();
            if (body == null) {
                exchange.ended();
                return;
            }
            HttpConnection connection = HttpCoreContext.adapt(context).getConnection();
            response.setEntity(new CapturedResponseEntity(body, exchange, call, connection));
        } catch (RuntimeException odd) {
            call.last().attribute("response", "could not be read whole: " + odd);
        }
    }
}
