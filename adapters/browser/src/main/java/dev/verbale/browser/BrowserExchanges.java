package dev.verbale.browser;

import dev.verbale.Exchange;
import dev.verbale.Scope;
import dev.verbale.spi.AdapterRecorder;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * What a page asks of its server, as exchanges of the test that uses it: what its scripts fetch, or everything, as the
 * setting {@code verbale.browser.exchanges} says. From any thread.
 *
 * @since 0.2.0
 */
public final class BrowserExchanges {

    /** The most bytes of a response's body that a browser is asked for. */
    public static final long MAX_ASKED_FOR = 4_000_000;

    private static final int MAX_UNDER_WAY = 1_000;

    private final AdapterRecorder recorder;
    private final String client;
    private final String wanted;
    private final Map<String, Exchange> underWay = new LinkedHashMap<>();
    private volatile @Nullable Scope scope;

    /**
     * @param client what the exchanges are said to be sent by, such as {@code Chromium}
     */
    public BrowserExchanges(AdapterRecorder recorder, String client) {
        this.recorder = recorder == null ? AdapterRecorder.none() : recorder;
        this.client = client;
        this.wanted = this.recorder.setting(BrowserAdapter.EXCHANGES);
    }

    /** What is asked from now on belongs to {@code scope}; to nobody where it is null. */
    public void belongTo(@Nullable Scope to) {
        scope = to;
    }

    /**
     * The browser asks for something.
     *
     * @param id the same in what comes of it
     * @param type what it is wanted for, such as {@code document} or {@code fetch}
     * @param update given the exchange, where it is one that is recorded: to say its headers and body
     */
    public void asked(String id, String method, String url, String type, Consumer<Exchange> update) {
        Scope to = scope;
        if (to == null || !isWanted(String.valueOf(type).toLowerCase(Locale.ROOT), String.valueOf(url))) return;
        Exchange exchange = recorder.exchange(to, method, url).client(client);
        update.accept(exchange);
        synchronized (this) {
            if (underWay.size() >= MAX_UNDER_WAY) endOldest();
            underWay.put(id, exchange);
        }
    }

    /** Some never end by themselves, such as a stream of events. */
    private void endOldest() {
        var all = underWay.values().iterator();
        all.next().ended();
        all.remove();
    }

    private boolean isWanted(String type, String url) {
        if (wanted.equals("off") || !url.startsWith("http")) return false;
        return wanted.equals("all") || type.equals("fetch") || type.equals("xhr");
    }

    /** Says more about one that is under way; nothing where it is none that is recorded. */
    public void update(String id, Consumer<Exchange> update) {
        Exchange exchange = of(id);
        if (exchange != null) update.accept(exchange);
    }

    /** The exchange, to be ended by the caller, who may have to wait for its body; null where none is recorded. */
    public synchronized @Nullable Exchange remove(String id) {
        return underWay.remove(id);
    }

    /** There was no response, or it broke off. */
    public void failed(String id, String why) {
        Exchange exchange = remove(id);
        if (exchange != null) exchange.failed(new NoResponse(why));
    }

    private synchronized @Nullable Exchange of(String id) {
        return underWay.get(id);
    }

    /** Ends an exchange whose body is too large to ask for. */
    public static void endedWithout(Exchange exchange, long size) {
        if (exchange == null) return;
        exchange.attribute("body", size + " bytes, which is too much to ask for")
                .ended();
    }

    /** How long a part took, in milliseconds of the browser's own clock; one that did not happen is less than 0. */
    public static void timing(Exchange exchange, String part, double from, double to) {
        if (exchange != null && from >= 0 && to >= from)
            exchange.timing(part, Duration.ofNanos(Math.round((to - from) * 1_000_000)));
    }

    /** What the browser says of it, without a stack of ours. */
    private static final class NoResponse extends Exception {
        private static final long serialVersionUID = 1;

        NoResponse(String why) {
            super(why, null, false, false);
        }

        /** Its reason alone: the class says nothing to a reader. */
        @Override
        @SuppressWarnings("OverrideThrowableToString")
        public String toString() {
            return String.valueOf(getMessage());
        }
    }
}
