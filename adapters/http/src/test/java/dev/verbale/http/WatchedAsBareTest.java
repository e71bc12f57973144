package dev.verbale.http;

import dev.verbale.http.difficult.Client;
import dev.verbale.http.difficult.Scenario;
import dev.verbale.http.difficult.WatchedAsBareContract;
import java.net.Authenticator;
import java.net.CookieManager;
import java.net.PasswordAuthentication;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.util.Set;
import org.junit.jupiter.api.Tag;

/** The JDK's client. */
@Tag("newer-jdk")
class WatchedAsBareTest extends WatchedAsBareContract {

    @Override
    protected Client client(boolean watched) {
        HttpClient bare = HttpClient.newBuilder()
                .followRedirects(HttpClient.Redirect.NORMAL)
                .connectTimeout(connecting)
                .cookieHandler(new CookieManager())
                .authenticator(new Authenticator() {
                    @Override
                    protected PasswordAuthentication getPasswordAuthentication() {
                        return new PasswordAuthentication("ada", "watering".toCharArray());
                    }
                })
                .build();
        HttpClient client = watched ? VerbaleHttp.watch(bare) : bare;
        return (scenario, url, reader) -> {
            HttpResponse<?> response = client.send(request(scenario, url), BodyHandlers.ofInputStream());
            return new Client.Answer(
                    response.statusCode(), response.getClass().getName(), reader.read((java.io.InputStream)
                            response.body()));
        };
    }

    private HttpRequest request(Scenario scenario, String url) {
        BodyPublisher body = scenario.streamed() > 0
                ? BodyPublishers.ofInputStream(() -> Client.zeros(scenario.streamed()))
                : scenario.body().length > 0 ? BodyPublishers.ofByteArray(scenario.body()) : BodyPublishers.noBody();
        HttpRequest.Builder request =
                HttpRequest.newBuilder(URI.create(url)).timeout(patience).method(scenario.method(), body);
        scenario.headers().forEach(request::header);
        return request.build();
    }

    @Override
    protected boolean givesWhatCame() {
        return false;
    }

    @Override
    protected boolean reportsRepeats() {
        return false;
    }

    /** What it sets by itself: its interface shows none of them. */
    @Override
    protected Set<String> unseen() {
        return Set.of(
                "connection",
                "content-length",
                "transfer-encoding",
                "host",
                "http2-settings",
                "upgrade",
                "user-agent",
                "authorization",
                "cookie");
    }
}
