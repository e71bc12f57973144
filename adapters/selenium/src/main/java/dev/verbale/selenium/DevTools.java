package dev.verbale.selenium;

import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.WebSocket;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import org.openqa.selenium.json.Json;

/**
 * A connection of our own to a browser's debugging address (the Chrome DevTools Protocol: JSON messages over a WebSocket).
 * It goes past the driver: what the test asked of the driver stays as it is, an open dialog stays open, and a driver that
 * hangs does not matter. From any thread.
 */
final class DevTools implements WebSocket.Listener {

    private static final Duration CONNECTING = Duration.ofSeconds(5);

    /** Hears what the browser says by itself; {@code session} is empty for the browser's own. */
    interface Events {
        void event(String session, String method, Map<String, ?> parameters);

        void closed();
    }

    private final Events events;
    private final Map<Long, Question> waiting = new ConcurrentHashMap<>();
    private final AtomicInteger ids = new AtomicInteger();
    private final StringBuilder parts = new StringBuilder();
    private final Json json = new Json();
    private CompletableFuture<WebSocket> sending = new CompletableFuture<>();
    private volatile boolean closed;

    private record Question(String session, CompletableFuture<Map<String, ?>> answer) {}

    private DevTools(Events events) {
        this.events = events;
    }

    /** @throws RuntimeException where nothing answers there in time */
    static DevTools connect(URI address, Events events) {
        var tools = new DevTools(events);
        WebSocket socket = HttpClient.newHttpClient()
                .newWebSocketBuilder()
                .connectTimeout(CONNECTING)
                .buildAsync(address, tools)
                .orTimeout(CONNECTING.toMillis(), TimeUnit.MILLISECONDS)
                .join();
        tools.sending.complete(socket);
        return tools;
    }

    boolean isClosed() {
        return closed;
    }

    /** Asks; the response is the result, or an {@link IllegalStateException} with what the browser said. */
    CompletableFuture<Map<String, ?>> ask(String session, String method, Map<String, ?> parameters) {
        long id = ids.incrementAndGet();
        var answer = new CompletableFuture<Map<String, ?>>();
        if (closed) {
            answer.completeExceptionally(new IllegalStateException("the connection to the browser is closed"));
            return answer;
        }
        Map<String, Object> message = new HashMap<>();
        message.put("id", id);
        message.put("method", method);
        message.put("params", parameters);
        if (!session.isEmpty()) message.put("sessionId", session);
        waiting.put(id, new Question(session, answer));
        String text = json.toJson(message);
        synchronized (this) { // one message at a time: the socket takes no second one while it sends
            sending = sending.thenCompose(socket -> socket.sendText(text, true));
            sending.exceptionally(broken -> {
                end();
                return null;
            });
        }
        return answer;
    }

    @Override
    public @Nullable CompletionStage<?> onText(WebSocket socket, CharSequence data, boolean last) {
        parts.append(data);
        if (last) {
            String text = parts.toString();
            parts.setLength(0);
            received(text);
        }
        socket.request(1);
        return null;
    }

    @SuppressWarnings("unchecked") // by the protocol
    private void received(String text) {
        try {
            Map<String, ?> message = json.toType(text, Map.class);
            if (message.get("id") instanceof Number id) {
                Question question = waiting.remove(id.longValue());
                if (question == null) return;
                CompletableFuture<Map<String, ?>> answer = question.answer();
                Map<String, ?> error = (Map<String, ?>) message.get("error");
                if (error != null) answer.completeExceptionally(new IllegalStateException(text(error, "message")));
                else answer.complete(map(message, "result"));
            } else {
                events.event(text(message, "sessionId"), text(message, "method"), map(message, "params"));
            }
        } catch (RuntimeException odd) {
            // a message of a newer protocol must not end the conversation
        }
    }

    @Override
    public @Nullable CompletionStage<?> onClose(WebSocket socket, int code, String reason) {
        end();
        return null;
    }

    @Override
    public void onError(WebSocket socket, Throwable broken) {
        end();
    }

    private void end() {
        if (closed) return;
        closed = true;
        for (Question question : waiting.values()) noAnswer(question, "the connection to the browser is closed");
        waiting.clear();
        events.closed();
    }

    /** What was asked of this session will not be answered any more. */
    void forsake(String session, String why) {
        waiting.values().removeIf(question -> {
            boolean asked = question.session().equals(session);
            if (asked) noAnswer(question, why);
            return asked;
        });
    }

    private static void noAnswer(Question question, String why) {
        question.answer().completeExceptionally(new IllegalStateException(why));
    }

    /** Hangs up. */
    void close() {
        synchronized (this) {
            sending.thenAccept(WebSocket::abort);
        }
        end();
    }

    static String text(Map<String, ?> map, String key) {
        Object value = map.get(key);
        return value == null ? "" : value.toString();
    }

    static long number(Map<String, ?> map, String key) {
        return map.get(key) instanceof Number number ? number.longValue() : 0;
    }

    @SuppressWarnings("unchecked") // by the protocol
    static Map<String, ?> map(Map<String, ?> map, String key) {
        return map.get(key) instanceof Map<?, ?> inner ? (Map<String, ?>) inner : Map.of();
    }
}
