package dev.verbale.viewer;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;

/** Short answers, whole. */
final class Answer {

    private Answer() {}

    static void html(WebExchange exchange, String html) throws IOException {
        exchange.set("Content-Type", "text/html; charset=utf-8");
        send(exchange, 200, html.getBytes(StandardCharsets.UTF_8));
    }

    static void text(WebExchange exchange, int status, String text) throws IOException {
        exchange.set("Content-Type", "text/plain; charset=utf-8");
        send(exchange, status, (text + "\n").getBytes(StandardCharsets.UTF_8));
    }

    private static void send(WebExchange exchange, int status, byte[] body) throws IOException {
        if (exchange.method().equals("HEAD")) {
            exchange.set("Content-Length", String.valueOf(body.length));
            exchange.answer(status);
            return;
        }
        try (OutputStream out = exchange.answer(status, body.length)) {
            out.write(body);
        }
    }
}
