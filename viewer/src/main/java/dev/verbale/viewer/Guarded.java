package dev.verbale.viewer;

import com.sun.net.httpserver.Headers;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpHandler;
import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.Semaphore;
import org.jspecify.annotations.Nullable;

/**
 * Lets in who may look, and nobody else: the name that a browser asked for has to be this machine's own, or any site could read the runs
 * through it (DNS rebinding); where there is a token, everybody says it once.
 *
 * @see <a href="https://www.rfc-editor.org/rfc/rfc9110#field.host">RFC 9110, Host</a>
 */
final class Guarded implements HttpHandler {

    static final String TOKEN = "token";

    /** Each of them holds a thread. */
    private static final int MAX_STREAMS = 64;

    private static final int LARGEST_BODY = 1 << 20;
    private static final Set<String> OWN_NAMES = Set.of("localhost", "127.0.0.1", "[::1]");

    private final ViewerOptions options;
    private final String cookie;
    private final String port;
    private final RunsSite behind;
    private final Semaphore streams = new Semaphore(MAX_STREAMS);

    Guarded(ViewerOptions options, int port, RunsSite behind) {
        this.options = options;
        this.port = ":" + port;
        this.cookie = "verbale-viewer-" + port; // cookies are those of a machine, whatever the port
        this.behind = behind;
    }

    @Override
    public void handle(HttpExchange exchange) throws IOException {
        try (exchange) {
            var answered = new JdkExchange(exchange, streams);
            Headers sent = exchange.getResponseHeaders();
            RunsSite.guard(answered);
            String method = exchange.getRequestMethod();
            if (!method.equals("GET") && !method.equals("HEAD")) {
                exchange.getRequestBody().readNBytes(LARGEST_BODY); // or who sends it hears no answer
                sent.set("Allow", "GET, HEAD");
                Answer.text(answered, 405, "The viewer shows runs and changes nothing: GET and HEAD are all it knows.");
            } else if (!isOwn(exchange)) {
                Answer.text(answered, 421, "The viewer answers to the address that it printed, and to no other name.");
            } else if (options.token() != null && !hasToken(exchange, options.token())) {
                Answer.text(answered, 401, "Open the address that the viewer printed: it has the token.");
            } else if (query(exchange, TOKEN) != null) {
                sent.set("Set-Cookie", cookie + "=" + query(exchange, TOKEN) + "; HttpOnly; SameSite=Strict; Path=/");
                sent.set("Location", exchange.getRequestURI().getRawPath());
                exchange.sendResponseHeaders(303, -1);
            } else {
                behind.answer(answered);
            }
        }
    }

    private boolean isOwn(HttpExchange exchange) {
        List<String> hosts = exchange.getRequestHeaders().getOrDefault("Host", List.of());
        if (hosts.size() != 1) return false;
        String host = hosts.get(0).toLowerCase(Locale.ROOT);
        if (!host.endsWith(port)) return false;
        String name = host.substring(0, host.length() - port.length());
        // Who knows the token was told it by who started this; by which name he comes is between them.
        return options.token() != null || OWN_NAMES.contains(name);
    }

    private boolean hasToken(HttpExchange exchange, String token) {
        String asked = query(exchange, TOKEN);
        if (asked != null) return same(decoded(asked), token);
        String authorization = exchange.getRequestHeaders().getFirst("Authorization");
        if (authorization != null && authorization.startsWith("Bearer "))
            return same(authorization.substring("Bearer ".length()).strip(), token);
        for (String cookies : exchange.getRequestHeaders().getOrDefault("Cookie", List.of()))
            for (String one : cookies.split(";\\s*"))
                if (one.startsWith(cookie + "=")) return same(decoded(one.substring(cookie.length() + 1)), token);
        return false;
    }

    /** In a time that tells nothing of where they differ. */
    private static boolean same(String one, String other) {
        return MessageDigest.isEqual(one.getBytes(StandardCharsets.UTF_8), other.getBytes(StandardCharsets.UTF_8));
    }

    private static String decoded(String text) {
        try {
            return URLDecoder.decode(text, StandardCharsets.UTF_8);
        } catch (IllegalArgumentException broken) {
            return "";
        }
    }

    /** As it was sent; null where it was not. */
    private static @Nullable String query(HttpExchange exchange, String name) {
        String query = exchange.getRequestURI().getRawQuery();
        if (query == null) return null;
        for (String one : query.split("&")) if (one.startsWith(name + "=")) return one.substring(name.length() + 1);
        return null;
    }
}
