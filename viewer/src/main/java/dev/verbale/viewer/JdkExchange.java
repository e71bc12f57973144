package dev.verbale.viewer;

import com.sun.net.httpserver.HttpExchange;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.Semaphore;
import org.jspecify.annotations.Nullable;

/** One of the JDK's server. A stream of events holds the thread that asks for it. */
final class JdkExchange implements WebExchange {

    private final HttpExchange exchange;
    private final Semaphore streams;

    /** @param streams so many more may be open */
    JdkExchange(HttpExchange exchange, Semaphore streams) {
        this.exchange = exchange;
        this.streams = streams;
    }

    @Override
    public String method() {
        return exchange.getRequestMethod();
    }

    @Override
    public String path() {
        return exchange.getRequestURI().getPath();
    }

    @Override
    public @Nullable String header(String name) {
        return exchange.getRequestHeaders().getFirst(name);
    }

    @Override
    public void set(String name, String value) {
        exchange.getResponseHeaders().set(name, value);
    }

    @Override
    public void answer(int status) throws IOException {
        exchange.sendResponseHeaders(status, -1);
    }

    @Override
    public OutputStream answer(int status, long length) throws IOException {
        exchange.sendResponseHeaders(status, length == UNKNOWN ? 0 : length);
        return exchange.getResponseBody();
    }

    @Override
    public void stream(EventFeed feed) throws IOException {
        if (!streams.tryAcquire()) {
            set("Retry-After", "10");
            Answer.text(this, 503, "Too many look at once; close one of them.");
            return;
        }
        try {
            OutputStream out = answer(200, UNKNOWN);
            write(out, EventFeed.BEGINNING);
            while (!feed.isOver()) {
                feed.await();
                String events = feed.next();
                write(out, events.isEmpty() ? EventFeed.SIGN_OF_LIFE : events);
            }
        } catch (InterruptedException closed) {
            Thread.currentThread().interrupt();
        } finally {
            streams.release();
        }
    }

    private static void write(OutputStream out, String text) throws IOException {
        out.write(text.getBytes(StandardCharsets.UTF_8));
        out.flush();
    }
}
