package dev.verbale.okhttp;

import dev.verbale.Scope;
import dev.verbale.spi.AdapterExchange;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.Entered;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Proxy;
import java.time.Duration;
import java.util.List;
import okhttp3.Call;
import okhttp3.EventListener;
import okhttp3.Handshake;
import okhttp3.Protocol;
import okhttp3.Request;
import org.jspecify.annotations.Nullable;

/** What is known of one call: the exchange that is under way in it, and how long its parts took. */
final class CallEvents extends EventListener {

    private final AdapterRecorder recorder;
    private final Scope scope;
    private @Nullable AdapterExchange exchange;
    private boolean sent;
    private long begun;
    private long dnsFrom;
    private long connectFrom;
    private long tlsFrom;

    CallEvents(AdapterRecorder recorder, Scope scope) {
        this.recorder = recorder;
        this.scope = scope;
    }

    /** The next request of the call begins: looking for the host and connecting belong to it. */
    synchronized AdapterExchange begin(Request request) {
        begun = System.nanoTime();
        sent = false;
        try (Entered here = recorder.enter(scope)) {
            AdapterExchange begins = recorder.exchange(
                            request.method(), request.url().toString())
                    .client("OkHttp");
            exchange = begins;
            return begins;
        }
    }

    /** The one that is about to go over the wire. */
    synchronized AdapterExchange send(Request request) {
        AdapterExchange open = exchange;
        if (open == null || sent) open = begin(request);
        sent = true;
        return open.url(request.url().toString());
    }

    /** The one that never reached the wire; null where it did. */
    synchronized @Nullable AdapterExchange unsent() {
        return sent ? null : exchange;
    }

    synchronized void failed(IOException failure) {
        if (exchange != null) exchange.failed(failure);
    }

    private synchronized void duration(String part, long from) {
        if (exchange != null) exchange.timing(part, Duration.ofNanos(System.nanoTime() - from));
    }

    @Override
    public void dnsStart(Call call, String host) {
        dnsFrom = System.nanoTime();
    }

    @Override
    public void dnsEnd(Call call, String host, List<InetAddress> found) {
        duration("dns", dnsFrom);
    }

    @Override
    public void connectStart(Call call, InetSocketAddress address, Proxy proxy) {
        connectFrom = System.nanoTime();
    }

    @Override
    public void secureConnectStart(Call call) {
        tlsFrom = System.nanoTime();
    }

    @Override
    public void secureConnectEnd(Call call, @Nullable Handshake handshake) {
        duration("TLS", tlsFrom);
    }

    @Override
    public void connectEnd(Call call, InetSocketAddress address, Proxy proxy, @Nullable Protocol protocol) {
        duration("connect", connectFrom);
    }

    @Override
    public synchronized void connectFailed(
            Call call, InetSocketAddress address, Proxy proxy, @Nullable Protocol protocol, IOException failure) {
        if (exchange != null) exchange.attribute("not reached at " + address, String.valueOf(failure.getMessage()));
    }

    /** As it went over the wire: interceptors that stand behind ours may have changed it. */
    @Override
    public synchronized void requestHeadersEnd(Call call, Request request) {
        if (exchange == null) return;
        exchange.clearRequestHeaders().url(request.url().toString());
        for (var header : request.headers()) exchange.requestHeader(header.getFirst(), header.getSecond());
    }

    @Override
    public void responseHeadersStart(Call call) {
        duration("first byte", begun);
    }
}
