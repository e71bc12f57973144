package dev.verbale.hub;

import java.util.Optional;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;

/** What the hub lets a browser keep: no script sees it. */
final class Cookies {

    private Cookies() {}

    static Optional<String> get(Request request, String name) {
        for (var cookie : Request.getCookies(request))
            if (cookie.getName().equals(name)) return Optional.of(cookie.getValue());
        return Optional.empty();
    }

    /**
     * @param sameSite from where it is sent: {@code Strict}, where another site's page or redirect leads here not, {@code Lax}, there too
     * @param seconds for which it stays; 0 takes it away
     */
    static void set(Request request, Response response, String name, String value, String sameSite, String seconds) {
        boolean isSecure =
                request.isSecure() || "https".equals(request.getHeaders().get("X-Forwarded-Proto"));
        response.getHeaders()
                .add(
                        "Set-Cookie",
                        name + "=" + value + "; HttpOnly; SameSite=" + sameSite + "; Path=/; Max-Age=" + seconds
                                + (isSecure ? "; Secure" : ""));
    }
}
