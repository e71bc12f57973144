package dev.verbale.hub;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import org.eclipse.jetty.io.Content;
import org.eclipse.jetty.server.Response;

/** Short answers, whole. */
final class HubAnswer {

    private HubAnswer() {}

    static void text(Response response, int status, String text) throws IOException {
        send(response, status, "text/plain; charset=utf-8", text + "\n");
    }

    static void html(Response response, int status, String html) throws IOException {
        send(response, status, "text/html; charset=utf-8", html);
    }

    static void send(Response response, int status, String type, String text) throws IOException {
        byte[] body = text.getBytes(StandardCharsets.UTF_8);
        response.setStatus(status);
        response.getHeaders().put("Content-Type", type);
        response.getHeaders().put("Content-Length", body.length);
        boolean isHead = response.getRequest().getMethod().equals("HEAD");
        try (OutputStream out = Content.Sink.asOutputStream(response)) {
            if (!isHead) out.write(body);
        }
    }

    static void nothing(Response response, int status) throws IOException {
        response.setStatus(status);
        Content.Sink.asOutputStream(response).close();
    }
}
