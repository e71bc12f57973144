package dev.verbale.messages;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * An address that takes JSON, with headers. What stands there in braces is filled in from the environment, so that no secret stands in a
 * command, a file or a log: {@code https://chat.orto.example/hooks/{CHAT_TOKEN}}.
 *
 * @since 0.2.0
 */
public final class Webhook {

    private static final Pattern VARIABLE = Pattern.compile("\\{([A-Za-z_][A-Za-z0-9_]*)}");
    private static final Set<Integer> TRY_AGAIN = Set.of(408, 425, 429, 500, 502, 503, 504);
    private static final Duration ANSWERS_WITHIN = Duration.ofSeconds(20);
    private static final long FIRST_PAUSE_MILLIS = 500;
    private static final long LONGEST_PAUSE_MILLIS = 20_000;
    private static final int LONGEST_REASON = 200;

    private final String shown;
    private final URI address;
    private final Map<String, String> headers = new LinkedHashMap<>();
    private final Duration patience;
    private final Map<String, String> environment;

    /**
     * @param patience how long it is tried again where nobody answers, or not now
     * @throws IllegalArgumentException where it is no address of a server, or a variable is not set; it names that
     */
    public Webhook(String address, Map<String, String> environment, Duration patience) {
        this.shown = address;
        this.environment = environment;
        this.patience = patience;
        String filled = filled(address);
        try {
            this.address = URI.create(filled);
        } catch (IllegalArgumentException wrong) {
            throw new IllegalArgumentException(
                    "'" + shown + "' is no address"); // the cause would say what was filled in
        }
        String scheme = this.address.getScheme();
        if (this.address.getHost() == null || !("http".equals(scheme) || "https".equals(scheme)))
            throw new IllegalArgumentException(
                    "'" + shown + "' is no address of a server, such as https://chat.orto.example/hooks/{CHAT_TOKEN}");
    }

    /** With a header, written as {@code Name: value}. */
    public Webhook header(String line) {
        int colon = line.indexOf(':');
        if (colon < 1 || line.chars().anyMatch(Character::isISOControl))
            throw new IllegalArgumentException("'" + line + "' is no header, such as 'Authorization: Bearer {TOKEN}'");
        headers.put(
                line.substring(0, colon).strip(),
                filled(line.substring(colon + 1).strip()));
        return this;
    }

    private String filled(String template) {
        var text = new StringBuilder();
        Matcher variable = VARIABLE.matcher(template);
        while (variable.find()) {
            String value = environment.getOrDefault(variable.group(1), "");
            if (value.isEmpty())
                throw new IllegalArgumentException(
                        "the variable " + variable.group(1) + " is not set, which " + template + " needs");
            variable.appendReplacement(text, Matcher.quoteReplacement(value));
        }
        return variable.appendTail(text).toString();
    }

    /** As it was written, without what was filled in. */
    public String shown() {
        return shown;
    }

    /**
     * Sends a message; again with pauses where it is not taken now.
     *
     * @param key the same for the same message, by which whoever takes it can tell that it comes again (Idempotency-Key)
     * @throws IOException where it was not taken; the message has nothing that was filled in
     */
    public void send(byte[] json, String key) throws IOException, InterruptedException {
        HttpClient client = HttpClient.newBuilder()
                .connectTimeout(ANSWERS_WITHIN)
                .followRedirects(HttpClient.Redirect.NEVER) // what it has is for this address alone
                .build();
        long until = System.nanoTime() + patience.toNanos();
        for (long pause = FIRST_PAUSE_MILLIS; ; pause = Math.min(LONGEST_PAUSE_MILLIS, pause * 2)) {
            String why;
            long wait = pause;
            try {
                HttpResponse<String> answer = client.send(request(json, key), BodyHandlers.ofString());
                if (answer.statusCode() / 100 == 2) return;
                why = shown + " answered " + answer.statusCode() + " " + reason(answer.body());
                if (!TRY_AGAIN.contains(answer.statusCode())) throw new Refused(why);
                wait = Math.max(pause, pauseAskedFor(answer));
            } catch (Refused refused) {
                throw refused;
            } catch (IOException away) {
                why = shown + " cannot be reached: " + away.getClass().getSimpleName();
            }
            if (System.nanoTime() + wait * 1_000_000 > until) throw new IOException(why);
            Thread.sleep(wait);
        }
    }

    private static final class Refused extends IOException {
        private static final long serialVersionUID = 1;

        Refused(String why) {
            super(why);
        }
    }

    private HttpRequest request(byte[] json, String key) {
        HttpRequest.Builder request = HttpRequest.newBuilder(address)
                .timeout(ANSWERS_WITHIN)
                .header("Content-Type", "application/json; charset=utf-8")
                .header("Idempotency-Key", key)
                .POST(BodyPublishers.ofByteArray(json));
        headers.forEach(request::setHeader);
        return request.build();
    }

    /** In milliseconds; RFC 9110, 10.2.3, in seconds. */
    private static long pauseAskedFor(HttpResponse<?> answer) {
        String seconds = answer.headers().firstValue("Retry-After").orElse("0").strip();
        return seconds.matches("\\d{1,6}") ? Long.parseLong(seconds) * 1_000 : 0;
    }

    /** What came back may have in it what was sent. */
    private String reason(String body) {
        String line = RunNews.plain(body);
        for (String value : environment.values()) if (value.length() > 5) line = line.replace(value, "[masked]");
        return line.length() > LONGEST_REASON ? line.substring(0, LONGEST_REASON) + "\u2026" : line;
    }
}
