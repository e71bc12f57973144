package dev.verbale.engine.exchange;

import dev.verbale.BoundedBuffer;
import dev.verbale.border.ShownValue;
import dev.verbale.engine.exchange.Bodies.Raw;
import dev.verbale.engine.guard.Task;
import dev.verbale.engine.journal.MonotonicClock;
import dev.verbale.engine.scope.OpenUntilScopeEnds;
import dev.verbale.engine.scope.ScopeNode;
import dev.verbale.engine.text.FormParts;
import dev.verbale.engine.text.Texts;
import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Request;
import dev.verbale.event.ExchangeMade.Response;
import dev.verbale.event.ExchangeMade.Timing;
import dev.verbale.spi.AdapterExchange;
import dev.verbale.spi.CapturedStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;

/** An exchange that is under way. */
final class OpenExchange implements AdapterExchange, OpenUntilScopeEnds {

    private final ExchangeRecorder recorder;
    private final ScopeNode scope;
    private final @Nullable String thread;
    private final int id;
    private final long at;
    private final String method;
    private final AtomicBoolean over = new AtomicBoolean();
    private final List<Header> requestHeaders = new ArrayList<>();
    private final List<Header> responseHeaders = new ArrayList<>();
    private final List<FormParts.Part> requestParts = new ArrayList<>();
    private final Map<String, Long> timings = new LinkedHashMap<>();
    private final Map<String, String> attributes = new LinkedHashMap<>();
    private final OneBody requestBody = new OneBody("request body", requestHeaders);
    private final OneBody responseBody = new OneBody("response body", responseHeaders);
    private String url;
    private String client = "";
    private @Nullable String protocol;
    private int status;
    private boolean answered;
    /** When its response began to come. */
    private long answeredAt;
    /** Whether it is one of several of a call, of which only the whole was timed. */
    private boolean isUntimed;

    private @Nullable Runnable atTestEnd;
    private long endsAt = -1;

    OpenExchange(
            ExchangeRecorder recorder,
            ScopeNode scope,
            @Nullable String thread,
            @Nullable String method,
            @Nullable String url) {
        this(recorder, scope, thread, Texts.text(method), Texts.text(url), recorder.journal.now());
    }

    private OpenExchange(
            ExchangeRecorder recorder, ScopeNode scope, @Nullable String thread, String method, String url, long at) {
        this.recorder = recorder;
        this.scope = scope;
        this.thread = thread;
        this.id = recorder.scopes.nextId();
        this.at = at;
        this.method = method;
        this.url = url;
    }

    /** From now on its scope knows it, and ends it when the scope itself ends, if nobody did before. */
    void begins() {
        OpenUntilScopeEnds oldest = scope.state.begins(this);
        if (oldest != null) oldest.tooMany();
    }

    @Override
    public synchronized AdapterExchange client(String name) {
        client = recorder.texts.name(name);
        return this;
    }

    @Override
    public synchronized AdapterExchange protocol(@Nullable String name) {
        protocol = name;
        return this;
    }

    @Override
    public synchronized AdapterExchange url(String there) {
        if (there != null) url = there;
        return this;
    }

    @Override
    public @Nullable String traceParent() {
        return recorder.settings.traces().header();
    }

    @Override
    public synchronized AdapterExchange requestHeader(String name, String value) {
        if (name != null) requestHeaders.add(new Header(name, Texts.text(value)));
        return this;
    }

    @Override
    public synchronized AdapterExchange clearRequestHeaders() {
        requestHeaders.clear();
        return this;
    }

    @Override
    public synchronized AdapterExchange requestBody(byte[] body, String mediaType) {
        requestBody.is(body, null, mediaType);
        return this;
    }

    @Override
    public synchronized AdapterExchange requestBody(BoundedBuffer body, String mediaType) {
        requestBody.is(null, body, mediaType);
        return this;
    }

    @Override
    public synchronized AdapterExchange requestPart(
            String name, @Nullable String file, byte[] content, String mediaType) {
        if (content != null)
            requestParts.add(new FormParts.Part(
                    recorder.texts.name(name),
                    file,
                    null,
                    content,
                    content.length,
                    mediaType == null ? "" : mediaType));
        return this;
    }

    @Override
    public synchronized AdapterExchange requestPart(
            String name, @Nullable String file, BoundedBuffer content, String mediaType) {
        if (content != null)
            requestParts.add(new FormParts.Part(
                    recorder.texts.name(name),
                    file,
                    null,
                    content.bytes(),
                    content.size(),
                    mediaType == null ? "" : mediaType));
        return this;
    }

    @Override
    public synchronized AdapterExchange status(int code) {
        status = code;
        answered = true;
        answeredAt = recorder.journal.now();
        return this;
    }

    @Override
    public synchronized AdapterExchange responseHeader(String name, String value) {
        if (name != null) responseHeaders.add(new Header(name, Texts.text(value)));
        answered = true;
        return this;
    }

    @Override
    public synchronized AdapterExchange responseBody(byte[] body, String mediaType) {
        responseBody.is(body, null, mediaType);
        answered = true;
        return this;
    }

    @Override
    public synchronized AdapterExchange responseBody(BoundedBuffer body, String mediaType) {
        responseBody.is(null, body, mediaType);
        answered = true;
        return this;
    }

    @Override
    public InputStream responseBody(InputStream body, String mediaType) {
        if (body == null) return body;
        BoundedBuffer captured = buffer();
        responseBody(captured, mediaType);
        return new CapturedStream(body, this, captured, false);
    }

    @Override
    public BoundedBuffer buffer() {
        return new BoundedBuffer(recorder.settings.maxBytes());
    }

    @Override
    public synchronized AdapterExchange timing(String part, Duration duration) {
        if (duration != null) timings.put(recorder.texts.name(part), MonotonicClock.micros(duration));
        return this;
    }

    @Override
    public synchronized AdapterExchange attribute(String name, String value) {
        attributes.put(recorder.texts.name(name), Texts.text(value));
        return this;
    }

    /** The next exchange stands at the moment of the first, behind it: when it was sent, nobody knows. */
    @Override
    public AdapterExchange next(String nextMethod, String nextUrl) {
        var next = new OpenExchange(recorder, scope, thread, Texts.text(nextMethod), Texts.text(nextUrl), at);
        synchronized (this) {
            isUntimed = true;
            timings.clear();
            next.client = client;
        }
        next.isUntimed = true;
        next.begins();
        return next;
    }

    @Override
    public synchronized AdapterExchange onTestEnd(Runnable action) {
        atTestEnd = action;
        return this;
    }

    @Override
    public void ended() {
        write(null, now());
    }

    /** Or the moment at which it came to its end, where somebody only looks at what is left of it. */
    private synchronized long now() {
        return endsAt >= 0 ? endsAt : recorder.journal.now();
    }

    @Override
    public void failed(Throwable failure) {
        write(recorder.texts.cut(ShownValue.of(failure), Texts.LONGEST), now());
    }

    /**
     * The test is over and waits for no response: what is known until now is written. Where nobody read the response's body,
     * the time is that until the response began.
     */
    @Override
    public void scopeEnds() {
        long end = isUnread() ? answeredAt : recorder.journal.now();
        Runnable action;
        synchronized (this) {
            endsAt = end;
            action = atTestEnd;
        }
        if (action != null) recorder.guard.userCode().run(action);
        end(end);
    }

    /** Without that action: whoever began another one may hold locks of its own. */
    @Override
    public void tooMany() {
        end(isUnread() ? answeredAt : recorder.journal.now());
    }

    private void end(long end) {
        if (!over.get())
            attribute(
                    "ended",
                    answered
                            ? "by the end of the " + scope.state.word() + ", before the response"
                            : "by the end of the " + scope.state.word() + ", without a response");
        write(null, end);
    }

    private synchronized boolean isUnread() {
        return answered && answeredAt > 0 && responseBody.isUntouched();
    }

    @Override
    public boolean checked(String name, @Nullable Throwable failure) {
        return recorder.checks.checked(scope, name, failure, id);
    }

    @Override
    public void checkFailed(String name, Throwable failure) {
        if (failure != null) recorder.checks.writeWithoutEvidence(scope, name, failure, id);
    }

    private void write(@Nullable String failure, long end) {
        if (!over.compareAndSet(false, true)) return;
        scope.state.ends(this);
        recorder.guard.run(Task.EXCHANGE, context -> recorder.journal.append(scope, event(timing(end), failure)));
    }

    private synchronized Timing timing(long end) {
        return new Timing(isUntimed ? null : Math.max(0, end - at), timings);
    }

    private synchronized ExchangeMade event(Timing timing, @Nullable String failure) throws IOException {
        Bodies bodies = recorder.bodies(scope);
        Body sent = requestParts.isEmpty() ? requestBody.kept(bodies) : bodies.ofParts(requestParts);
        return new ExchangeMade(
                at,
                id,
                scope.id(),
                thread,
                client,
                protocol,
                new Request(method, url, masked(requestHeaders), sent),
                answered ? new Response(status, masked(responseHeaders), responseBody.kept(bodies)) : null,
                timing,
                failure,
                recorder.settings.traces().of(requestHeaders),
                maskedValues());
    }

    private List<Header> masked(List<Header> headers) {
        List<Header> masked = new ArrayList<>();
        for (Header header : headers)
            masked.add(new Header(header.name(), recorder.texts.value(header.name(), header.value())));
        return masked;
    }

    private Map<String, String> maskedValues() {
        Map<String, String> masked = new LinkedHashMap<>(attributes);
        masked.replaceAll(recorder.texts::value);
        return masked;
    }

    /** A body that is there already, or passes by. */
    private static final class OneBody {
        private final String name;
        private final List<Header> headers;
        private byte @Nullable [] there;
        private @Nullable BoundedBuffer passing;
        private String mediaType = "";

        public OneBody(String name, List<Header> headers) {
            this.name = name;
            this.headers = headers;
        }

        public void is(byte @Nullable [] there, @Nullable BoundedBuffer passing, String mediaType) {
            this.there = there;
            this.passing = passing;
            this.mediaType = mediaType == null ? "" : mediaType;
        }

        public boolean isUntouched() {
            return there == null && (passing == null || passing.size() == 0);
        }

        /** Null where there is none, or nothing passed by. */
        @Nullable
        public Body kept(Bodies bodies) throws IOException {
            if (there != null) return bodies.body(name, new Raw(there, there.length, type()), headers);
            if (passing == null || passing.size() == 0) return null;
            return bodies.body(name, new Raw(passing.bytes(), passing.size(), type()), headers);
        }

        private String type() {
            if (!mediaType.isEmpty()) return mediaType;
            for (Header header : headers) if (header.name().equalsIgnoreCase("content-type")) return header.value();
            return "";
        }
    }
}
