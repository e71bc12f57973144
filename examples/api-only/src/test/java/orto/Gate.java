package orto;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;

/** Stands for the service that you test: it forgot autumn. */
final class Gate implements AutoCloseable {

    private final HttpServer server;

    Gate() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/hours", exchange -> {
            switch (exchange.getRequestURI().getPath()) {
                case "/hours" -> answer(exchange, 200, "application/json", "{\"summer\":7,\"winter\":8,\"token\":\"seeds-4711\"}");
                case "/hours/summer" -> answer(exchange, 200, "text/plain", "7");
                case "/hours/winter" -> answer(exchange, 200, "text/plain", "8");
                default -> answer(exchange, 404, "application/json", "{\"error\":\"There is no such season\"}");
            }
        });
        server.start();
    }

    private static void answer(HttpExchange exchange, int status, String type, String text) throws IOException {
        byte[] body = text.getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", type);
        exchange.sendResponseHeaders(status, body.length);
        exchange.getResponseBody().write(body);
        exchange.close();
    }

    String address() {
        return "http://localhost:" + server.getAddress().getPort();
    }

    @Override
    public void close() {
        server.stop(0);
    }
}
