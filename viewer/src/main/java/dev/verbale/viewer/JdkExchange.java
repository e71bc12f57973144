package dev.verbale.viewer;

import com.sun.net.httpserver.HttpExchange;
import java.io.IOException;
import java.io.OutputStream;
import org.jspecify.annotations.Nullable;

/** One of the JDK's server. */
final class JdkExchange implements WebExchange {

    private final HttpExchange exchange;

    JdkExchange(HttpExchange exchange) {
        this.exchange = exchange;
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
}
