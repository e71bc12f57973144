package dev.verbale.restassured;

import dev.verbale.Exchange;
import dev.verbale.spi.Capture;
import io.restassured.filter.FilterContext;
import io.restassured.filter.OrderedFilter;
import io.restassured.http.Header;
import io.restassured.response.Response;
import io.restassured.specification.FilterableRequestSpecification;
import io.restassured.specification.FilterableResponseSpecification;

/**
 * Makes REST Assured tell its exchanges. For all requests, or for one:
 *
 * <pre>{@code
 * RestAssured.filters(new VerbaleFilter());
 * given().filter(new VerbaleFilter()).get("/api/seeds");
 * }</pre>
 *
 * <p>It looks on where the client underneath sends and receives: each request is an exchange as it goes over the wire, with the
 * headers that are added on the way, redirects and answers to a challenge too. A body is captured as the test reads it. Of a
 * response that the test never reads, what has come by the end of the test is kept. Registered twice, it records once.
 *
 * @since 0.2.0
 */
public final class VerbaleFilter implements OrderedFilter {

    private static final String RECORDED = "dev.verbale.recorded";
    private static final int LAST_BUT_SENDING = OrderedFilter.LOWEST_PRECEDENCE - 1_000;

    private final boolean recordsChecks;

    /** One that hands on the responses of REST Assured as they are. */
    public VerbaleFilter() {
        this(false);
    }

    private VerbaleFilter(boolean recordsChecks) {
        this.recordsChecks = recordsChecks;
    }

    /**
     * One that also records what {@code then()} asserts of a response, as checks of the exchange, one by one.
     *
     * <p>The response is a proxy then, which is a {@link Response} and of no other class; what reading it throws that is neither
     * a {@code RuntimeException} nor an {@code Error} comes as the cause of an {@link
     * java.lang.reflect.UndeclaredThrowableException}. Assertions fail as they did.
     */
    public VerbaleFilter recordingChecks() {
        return new VerbaleFilter(true);
    }

    @Override
    public int getOrder() {
        return LAST_BUT_SENDING;
    }

    @Override
    public Response filter(
            FilterableRequestSpecification request, FilterableResponseSpecification expected, FilterContext context) {
        Capture recorder = Capture.current();
        if (!recorder.isRecording()) return context.next(request, expected);
        if (context.getValue(RECORDED) instanceof RestAssuredCall known)
            return received(context.next(request, expected), known);
        RestAssuredCall call = RestAssuredCall.begin(recorder, request.getMethod(), address(request));
        context.setValue(RECORDED, call);
        try {
            WireInterceptors.in(request.getHttpClient());
            Response response = context.next(request, expected);
            if (call.isSent()) call.handOver();
            else answeredElsewhere(response, call.last());
            return received(response, call);
        } catch (Throwable failure) { // checked ones too: Groovy throws them without a word
            call.failed(failure);
            throw failure;
        } finally {
            call.leave();
        }
    }

    private Response received(Response response, RestAssuredCall call) {
        boolean isPlain = recordsChecks && response != null && !RecordingChecks.isIn(response);
        return isPlain ? RecordingChecks.of(response, call.last()) : response;
    }

    private static String address(FilterableRequestSpecification request) {
        try {
            return request.getURI();
        } catch (RuntimeException incomplete) { // REST Assured is about to say what is wrong with it
            return request.getBaseUri() + request.getUserDefinedPath();
        }
    }

    /** By a filter behind this one; its body is left to the test. */
    private static void answeredElsewhere(Response response, Exchange exchange) {
        exchange.attribute("answered by", "another filter");
        if (response != null) {
            exchange.status(response.getStatusCode());
            for (Header header : response.getHeaders()) exchange.responseHeader(header.getName(), header.getValue());
        }
        exchange.ended();
    }
}
