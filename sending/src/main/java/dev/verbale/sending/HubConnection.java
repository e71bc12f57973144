package dev.verbale.sending;

import java.io.IOException;
import java.net.ConnectException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandler;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * Requests to a hub, each tried again while it is away, slow or full, until patience is over. The JDK's older client would start sooner, and
 * takes an answer that was cut in the middle of a header for a whole one.
 */
final class HubConnection {

    /** Statuses that say: try again (RFC 9110, RFC 6585), and that a checksum did not hold (tus). */
    private static final Set<Integer> TRY_AGAIN = Set.of(408, 425, 429, 460, 500, 502, 503, 504, 507);

    private static final Duration CONNECT = Duration.ofSeconds(10);
    private static final Duration ANSWER = Duration.ofSeconds(60);
    private static final long FIRST_WAIT_MILLIS = 100;
    private static final long LONGEST_WAIT_MILLIS = 5_000;
    private static final int LONGEST_REASON = 300;

    private final SendOptions options;
    private final HttpClient client;

    HubConnection(SendOptions options) {
        this.options = options;
        this.client = HttpClient.newBuilder()
                .version(HttpClient.Version.HTTP_1_1)
                .connectTimeout(CONNECT)
                .followRedirects(HttpClient.Redirect.NEVER) // the token is for this hub alone
                .build();
    }

    /** An address of the hub below {@code parts}, each encoded. */
    URI address(String... parts) {
        var path = new StringBuilder(options.hub().toString().replaceFirst("/+$", ""));
        for (String part : parts)
            path.append('/')
                    .append(URLEncoder.encode(part, StandardCharsets.UTF_8).replace("+", "%20"));
        return URI.create(path.toString());
    }

    /**
     * The answer to a request.
     *
     * @param expected statuses that are answers; with any other it throws
     * @throws HubRefused where trying again would not help
     * @throws IOException where the hub could not be reached as long as there was patience
     */
    HttpResponse<String> ask(
            String method, URI address, Map<String, String> headers, BodyPublisher body, Set<Integer> expected)
            throws IOException, InterruptedException {
        return ask(method, address, headers, body, expected, BodyHandlers.ofString(), text -> text);
    }

    /** What is at {@code address}, as it is. */
    byte[] bytes(URI address) throws IOException, InterruptedException {
        return ask(
                        "GET",
                        address,
                        Map.of(),
                        BodyPublishers.noBody(),
                        Set.of(200),
                        BodyHandlers.ofByteArray(),
                        bytes -> new String(bytes, StandardCharsets.UTF_8))
                .body();
    }

    private <T> HttpResponse<T> ask(
            String method,
            URI address,
            Map<String, String> headers,
            BodyPublisher body,
            Set<Integer> expected,
            BodyHandler<T> handler,
            Function<T, String> text)
            throws IOException, InterruptedException {
        long until = System.nanoTime() + options.patience().toNanos();
        for (long wait = FIRST_WAIT_MILLIS; ; wait = Math.min(LONGEST_WAIT_MILLIS, wait * 2)) {
            String why;
            try {
                HttpResponse<T> response = client.send(request(method, address, headers, body), handler);
                if (expected.contains(response.statusCode())) return response;
                why = response.statusCode() + " " + reason(text.apply(response.body()));
                if (!TRY_AGAIN.contains(response.statusCode()))
                    throw new HubRefused(response.statusCode(), "The hub at " + options.hub() + " answered " + why);
            } catch (HubRefused refused) {
                throw refused;
            } catch (IOException away) {
                why = reason(away);
            }
            if (System.nanoTime() + wait * 1_000_000 > until)
                throw new IOException("The hub at " + options.hub() + " cannot be reached: " + why);
            Thread.sleep(wait);
        }
    }

    private HttpRequest request(String method, URI address, Map<String, String> headers, BodyPublisher body) {
        HttpRequest.Builder request = HttpRequest.newBuilder(address)
                .timeout(ANSWER)
                .header("Authorization", "Bearer " + options.token())
                .method(method, body);
        headers.forEach(request::header);
        return request.build();
    }

    /** The JDK's client has no words of its own for a connection that is refused. */
    private static String reason(IOException away) {
        String message = away.getMessage();
        if (message != null) return message;
        return away instanceof ConnectException
                ? "nothing answers there"
                : away.getClass().getSimpleName();
    }

    private static String reason(String body) {
        String line = body.strip().replaceAll("\\s+", " ");
        return line.length() > LONGEST_REASON ? line.substring(0, LONGEST_REASON) + "…" : line;
    }
}
