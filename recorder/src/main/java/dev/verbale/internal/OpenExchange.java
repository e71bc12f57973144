package dev.verbale.internal;

import dev.verbale.event.ExchangeMade;
import dev.verbale.event.ExchangeMade.Body;
import dev.verbale.event.ExchangeMade.Header;
import dev.verbale.event.ExchangeMade.Message;
import dev.verbale.internal.Bodies.Raw;
import dev.verbale.recorder.Beginning;
import dev.verbale.recorder.Exchange;
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
final class OpenExchange implements Exchange {

    private final FileRecorder recorder;
    private final ExchangeKeeping keeping;
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
    /** When its answer began to come. */
    private long answeredAt;
    /** Whether it is one of several of a call, of which only the whole was timed. */
    private boolean isUntimed;

    private @Nullable Runnable lastLook;
    private long endsAt = -1;

    OpenExchange(FileRecorder recorder, ScopeNode scope, @Nullable String thread, String method, String url) {
        this(recorder, scope, thread, method, url, recorder.minutes.clock.micros());
    }

    private OpenExchange(
            FileRecorder recorder, ScopeNode scope, @Nullable String thread, String method, String url, long at) {
        this.recorder = recorder;
        this.keeping = recorder.exchanges;
        this.scope = scope;
        this.thread = thread;
        this.id = recorder.ids.incrementAndGet();
        this.at = at;
        this.method = method;
        this.url = url;
    }

    /** Whoever it belongs to ends it at the latest. */
    void begins() {
        OpenExchange givenUp = scope.owner.begins(this);
        if (givenUp != null) givenUp.isGivenUp();
    }

    @Override
    public synchronized Exchange client(String name) {
        client = recorder.name(name);
        return this;
    }

    @Override
    public synchronized Exchange protocol(@Nullable String name) {
        protocol = name;
        return this;
    }

    @Override
    public synchronized Exchange url(String there) {
        if (there != null) url = there;
        return this;
    }

    @Override
    public @Nullable String traceParent() {
        return keeping.traces.header();
    }

    @Override
    public synchronized Exchange requestHeader(String name, String value) {
        if (name != null) requestHeaders.add(new Header(name, FileRecorder.text(value)));
        return this;
    }

    @Override
    public synchronized Exchange forgetRequestHeaders() {
        requestHeaders.clear();
        return this;
    }

    @Override
    public synchronized Exchange requestBody(byte[] body, String mediaType) {
        requestBody.is(body, null, mediaType);
        return this;
    }

    @Override
    public synchronized Exchange requestBody(Beginning body, String mediaType) {
        requestBody.is(null, body, mediaType);
        return this;
    }

    @Override
    public synchronized Exchange requestPart(String name, @Nullable String file, byte[] content, String mediaType) {
        if (content != null)
            requestParts.add(new FormParts.Part(
                    recorder.name(name), file, null, content, content.length, mediaType == null ? "" : mediaType));
        return this;
    }

    @Override
    public synchronized Exchange requestPart(String name, @Nullable String file, Beginning content, String mediaType) {
        if (content != null)
            requestParts.add(new FormParts.Part(
                    recorder.name(name),
                    file,
                    null,
                    content.bytes(),
                    content.size(),
                    mediaType == null ? "" : mediaType));
        return this;
    }

    @Override
    public synchronized Exchange status(int code) {
        status = code;
        answered = true;
        answeredAt = recorder.minutes.clock.micros();
        return this;
    }

    @Override
    public synchronized Exchange responseHeader(String name, String value) {
        if (name != null) responseHeaders.add(new Header(name, FileRecorder.text(value)));
        answered = true;
        return this;
    }

    @Override
    public synchronized Exchange responseBody(byte[] body, String mediaType) {
        responseBody.is(body, null, mediaType);
        answered = true;
        return this;
    }

    @Override
    public synchronized Exchange responseBody(Beginning body, String mediaType) {
        responseBody.is(null, body, mediaType);
        answered = true;
        return this;
    }

    @Override
    public InputStream responseBody(InputStream body, String mediaType) {
        if (body == null) return body;
        Beginning heard = beginning();
        responseBody(heard, mediaType);
        return new HeardStream(body, this, heard);
    }

    @Override
    public Beginning beginning() {
        return new Beginning(keeping.mostBytes);
    }

    @Override
    public synchronized Exchange timing(String part, Duration took) {
        if (took != null) timings.put(recorder.name(part), FileRecorder.micros(took));
        return this;
    }

    @Override
    public synchronized Exchange attribute(String name, String value) {
        attributes.put(recorder.name(name), FileRecorder.text(value));
        return this;
    }

    /** It stands at the moment of the first, behind it: when it was sent, nobody knows. */
    @Override
    public Exchange next(String nextMethod, String nextUrl) {
        var next = new OpenExchange(
                recorder, scope, thread, FileRecorder.text(nextMethod), FileRecorder.text(nextUrl), at);
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
    public synchronized Exchange onTestEnd(Runnable look) {
        lastLook = look;
        return this;
    }

    @Override
    public void ended() {
        write(null, now());
    }

    /** Or the moment at which it came to its end, where somebody only looks at what is left of it. */
    private synchronized long now() {
        return endsAt >= 0 ? endsAt : recorder.minutes.clock.micros();
    }

    @Override
    public void failed(Throwable failure) {
        write(recorder.shortening.cut(NoteText.shown(failure), LongText.LONGEST), now());
    }

    /**
     * The test is over and waits for no answer: what is known until now is written. Where nobody read the answer's body, the
     * time is that until the answer began.
     */
    void ownerEnded() {
        long end = isUnread() ? answeredAt : recorder.minutes.clock.micros();
        Runnable look;
        synchronized (this) {
            endsAt = end;
            look = lastLook;
        }
        if (look != null) recorder.guard.foreign.run(look);
        end(end);
    }

    /** Without a look: whoever began another one may hold locks of its own. */
    private void isGivenUp() {
        end(isUnread() ? answeredAt : recorder.minutes.clock.micros());
    }

    private void end(long end) {
        if (!over.get())
            attribute(
                    "ended",
                    answered
                            ? "by the end of the " + owner() + ", before the answer"
                            : "by the end of the " + owner() + ", without an answer");
        write(null, end);
    }

    private String owner() {
        return scope.owner.isTest ? "test" : scope.owner.outer == null ? "run" : "container";
    }

    private synchronized boolean isUnread() {
        return answered && answeredAt > 0 && responseBody.isUntouched();
    }

    @Override
    public boolean checked(String name, @Nullable Throwable failure) {
        return recorder.checkedIn(scope, name, failure, id);
    }

    private void write(@Nullable String failure, long end) {
        if (!over.compareAndSet(false, true)) return;
        scope.owner.ends(this);
        long micros = isUntimed ? ExchangeMade.UNKNOWN : Math.max(0, end - at);
        recorder.guard.run(Task.EXCHANGE, seat -> recorder.minutes.append(scope, event(micros, failure)));
    }

    private synchronized ExchangeMade event(long micros, @Nullable String failure) throws IOException {
        var bodies = new Bodies(recorder, scope, keeping.mostBytes);
        Body sent = requestParts.isEmpty() ? requestBody.kept(bodies) : bodies.ofParts(requestParts);
        return new ExchangeMade(
                at,
                id,
                scope.id(),
                client,
                method,
                url,
                protocol,
                micros,
                timings,
                new Message(masked(requestHeaders), sent),
                status,
                answered ? new Message(masked(responseHeaders), responseBody.kept(bodies)) : null,
                failure,
                thread,
                keeping.traces.of(requestHeaders),
                maskedValues());
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

    /** A body that is there already, or passes by. */
    private static final class OneBody {
        private final String name;
        private final List<Header> headers;
        private byte @Nullable [] there;
        private @Nullable Beginning passing;
        private String mediaType = "";

        OneBody(String name, List<Header> headers) {
            this.name = name;
            this.headers = headers;
        }

        void is(byte @Nullable [] there, @Nullable Beginning passing, String mediaType) {
            this.there = there;
            this.passing = passing;
            this.mediaType = mediaType == null ? "" : mediaType;
        }

        boolean isUntouched() {
            return there == null && (passing == null || passing.size() == 0);
        }

        /** Null where there is none, or nothing passed by. */
        @Nullable
        Body kept(Bodies bodies) throws IOException {
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
