package dev.verbale.http;

import java.io.IOException;
import java.net.CookieHandler;
import java.net.CookieManager;
import java.net.URI;
import java.net.http.HttpClient;
import java.util.List;
import java.util.Map;

/** What a client is about to send of the cookies it keeps. */
final class Cookies {

    private Cookies() {}

    /** The JDK's own manager can be asked without a trace; a handler of the suite's might count how often it is. */
    static List<String> of(HttpClient client, URI address) {
        CookieHandler handler = client.cookieHandler().orElse(null);
        if (handler == null || handler.getClass() != CookieManager.class) return List.of();
        try {
            return handler.get(address, Map.of()).getOrDefault("Cookie", List.of());
        } catch (IOException | RuntimeException odd) { // the client is about to say so too
            return List.of();
        }
    }
}
