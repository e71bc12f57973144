package dev.verbale.internal;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Message;
import dev.verbale.recorder.Exchange;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;

/** An exchange that is under way. */
final class OpenExchange implements Exchange {

    private final FileRecorder recorder;
    private final ScopeNode scope;
    private final @Nullable String thread;
    private final long at;
    private final String method;
    private final AtomicBoolean over = new AtomicBoolean();
    private final List<Header> requestHeaders = new ArrayList<>();
    private final List<Header> responseHeaders = new ArrayList<>();
    private final Map<String, Long> timings = new LinkedHashMap<>();
    private final Map<String, String> attributes = new LinkedHashMap<>();
    private String url;
    private String client = "";
    private @Nullable String protocol;
    private @Nullable RawBody requestBody;
    private @Nullable RawBody responseBody;
    private int status;
    private boolean answered;

    OpenExchange(FileRecorder recorder, ScopeNode scope, @Nullable String thread, long at, String method, String url) {
        this.recorder = recorder;
        this.scope = scope;
        this.thread = thread;
        this.at = at;
        this.method = method;
        this.url = url;
    }

    @Override
    public Exchange client(String name) {
        client = name;
        return this;
    }

    @Override
    public Exchange protocol(String name) {
        protocol = name;
        return this;
    }

    @Override
    public Exchange url(String there) {
        url = there;
        return this;
    }

    @Override
    public synchronized Exchange requestHeader(String name, String value) {
        requestHeaders.add(new Header(name, value));
        return this;
    }

    @Override
    public Exchange requestBody(byte[] body, String mediaType) {
        requestBody = new RawBody(body, body.length, mediaType);
        return this;
    }

    @Override
    public Exchange status(int code) {
        status = code;
        answered = true;
        return this;
    }

    @Override
    public synchronized Exchange responseHeader(String name, String value) {
        responseHeaders.add(new Header(name, value));
        answered = true;
        return this;
    }

    @Override
    public Exchange responseBody(byte[] body, String mediaType) {
        return responseBody(body, body.length, mediaType);
    }

    @Override
    public Exchange responseBody(byte[] beginning, long size, String mediaType) {
        responseBody = new RawBody(beginning, size, mediaType);
        answered = true;
        return this;
    }

    @Override
    public synchronized Exchange timing(String part, Duration took) {
        timings.put(part, took.toNanos() / 1_000);
        return this;
    }

    @Override
    public synchronized Exchange attribute(String name, String value) {
        attributes.put(name, value);
        return this;
    }

    @Override
    public void ended() {
        write(null);
    }

    @Override
    public void failed(Throwable failure) {
        write(NoteText.shown(failure));
    }

    private void write(@Nullable String failure) {
        if (!over.compareAndSet(false, true)) return;
        recorder.guard.run("writing an exchange", seat -> {
            long micros = recorder.minutes.clock.micros() - at;
            Bodies bodies = new Bodies(recorder, scope);
            Message request =
                    new Message(masked(requestHeaders), body(bodies, "request body", requestBody, requestHeaders));
            Message response = answered
                    ? new Message(masked(responseHeaders), body(bodies, "response body", responseBody, responseHeaders))
                    : null;
            recorder.minutes.append(new ExchangeMade(
                    at,
                    scope.id(),
                    client,
                    method,
                    url,
                    protocol,
                    micros,
                    timings,
                    request,
                    status,
                    response,
                    failure,
                    thread,
                    maskedValues()));
        });
    }

    private static @Nullable Body body(Bodies bodies, String name, @Nullable RawBody raw, List<Header> headers)
            throws java.io.IOException {
        return raw == null ? null : bodies.body(name, raw, headers);
    }

    private List<Header> masked(List<Header> headers) {
        List<Header> masked = new ArrayList<>();
        for (Header header : headers)
            masked.add(new Header(header.name(), recorder.shown(header.name(), header.value())));
        return masked;
    }

    private Map<String, String> maskedValues() {
        Map<String, String> masked = new LinkedHashMap<>(attributes);
        masked.replaceAll((name, value) -> recorder.shown(name, value));
        return masked;
    }

    /** As it came over the wire, or as much of it as somebody kept. */
    record RawBody(byte[] bytes, long size, String mediaType) {}
}
