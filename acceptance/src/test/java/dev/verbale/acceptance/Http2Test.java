package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.event.ExchangeMade;
import dev.verbale.http.VerbaleHttp;
import dev.verbale.httpclient5.VerbaleHttpClient5;
import dev.verbale.okhttp.VerbaleOkHttp;
import dev.verbale.results.Entry;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.util.ArrayList;
import java.util.List;
import mockwebserver3.MockResponse;
import mockwebserver3.MockWebServer;
import mockwebserver3.RecordedRequest;
import okhttp3.MediaType;
import okhttp3.OkHttpClient;
import okhttp3.Request;
import okhttp3.RequestBody;
import okhttp3.Response;
import okhttp3.tls.HandshakeCertificates;
import okhttp3.tls.HeldCertificate;
import org.apache.hc.client5.http.async.methods.SimpleHttpResponse;
import org.apache.hc.client5.http.async.methods.SimpleRequestBuilder;
import org.apache.hc.client5.http.impl.async.CloseableHttpAsyncClient;
import org.apache.hc.client5.http.impl.async.HttpAsyncClientBuilder;
import org.apache.hc.client5.http.impl.async.HttpAsyncClients;
import org.apache.hc.client5.http.impl.nio.PoolingAsyncClientConnectionManagerBuilder;
import org.apache.hc.client5.http.ssl.ClientTlsStrategyBuilder;
import org.apache.hc.core5.http.ContentType;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** Over HTTP/2 a watched client does what the bare one does, and the record has it without its pseudo headers. */
class Http2Test {

    private static final String BEDS = "{\"plot\":7}";

    private static MockWebServer server;
    private static HandshakeCertificates trusted;

    @BeforeAll
    static void start() throws Exception {
        HeldCertificate certificate = new HeldCertificate.Builder()
                .addSubjectAlternativeName("localhost")
                .build();
        server = new MockWebServer();
        server.useHttps(new HandshakeCertificates.Builder()
                .heldCertificate(certificate)
                .build()
                .sslSocketFactory());
        server.start();
        trusted = new HandshakeCertificates.Builder()
                .addTrustedCertificate(certificate.certificate())
                .build();
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private interface Sending {
        String send(String url) throws Exception;
    }

    private static String seen(Sending sending) throws Exception {
        server.enqueue(new MockResponse.Builder()
                .code(201)
                .addHeader("X-Bed", "7")
                .body("planted")
                .build());
        String url = "https://localhost:" + server.getPort() + "/beds?at=gate";
        String response = sending.send(url);
        RecordedRequest received = server.takeRequest();
        List<String> headers = new ArrayList<>();
        received.getHeaders().forEach(one -> {
            if (!one.getFirst().equals("traceparent")) headers.add(one.getFirst() + ": " + one.getSecond());
        });
        return response + "\n" + received.getRequestLine() + "\n" + headers + "\n"
                + received.getBody().utf8();
    }

    private static void sameAndRecorded(Sending bare, Sending watched) throws Exception {
        int before = exchanges().size();
        assertThat(seen(watched)).isEqualTo(seen(bare)).contains("planted", "HTTP/2", BEDS);

        List<ExchangeMade> made = exchanges();
        assertThat(made).hasSize(before + 1);
        ExchangeMade last = made.get(before);
        assertThat(last.request().method() + " " + last.request().url() + " " + last.status() + " " + last.protocol())
                .isEqualTo("POST https://localhost:" + server.getPort() + "/beds?at=gate 201 HTTP/2");
        assertThat(last.request().body().text()).isEqualTo(BEDS);
        assertThat(last.response().body().text()).isEqualTo("planted");
        assertThat(last.request().headers()).noneMatch(one -> one.name().startsWith(":"));
        assertThat(last.response().headers()).noneMatch(one -> one.name().startsWith(":"));
    }

    /** Those of this thread's test, wherever its journal is. */
    private static List<ExchangeMade> exchanges() throws Exception {
        List<ExchangeMade> made = new ArrayList<>();
        var run = RunReader.read(AdapterRecorder.current().folder());
        for (var test : run.tests())
            if (test.id().contains("Http2Test"))
                for (var one : Entry.ExchangeEntry.in(test.entries())) made.add(one.made());
        for (var one : Entry.ExchangeEntry.in(run.entries())) made.add(one.made());
        return made.stream()
                .filter(one -> one.request().url().contains("localhost:" + server.getPort()))
                .toList();
    }

    @Test
    void the_jdks() throws Exception {
        HttpClient bare =
                HttpClient.newBuilder().sslContext(trusted.sslContext()).build();
        sameAndRecorded(url -> send(bare, url), url -> send(VerbaleHttp.watch(bare), url));
    }

    private static String send(HttpClient client, String url) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(url))
                .header("Content-Type", "application/json")
                .POST(BodyPublishers.ofString(BEDS))
                .build();
        var response = client.send(request, BodyHandlers.ofString());
        return response.version() + " " + response.statusCode() + " " + response.body();
    }

    @Test
    void okhttp() throws Exception {
        OkHttpClient bare = new OkHttpClient.Builder()
                .sslSocketFactory(trusted.sslSocketFactory(), trusted.trustManager())
                .build();
        sameAndRecorded(url -> send(bare, url), url -> send(VerbaleOkHttp.watch(bare), url));
    }

    private static String send(OkHttpClient client, String url) throws Exception {
        var request = new Request.Builder()
                .url(url)
                .post(RequestBody.create(BEDS, MediaType.get("application/json")))
                .build();
        try (Response response = client.newCall(request).execute()) {
            return response.protocol() + " " + response.code() + " "
                    + response.body().string();
        }
    }

    @Test
    void apaches_asynchronous_one() throws Exception {
        sameAndRecorded(url -> send(apache(), url), url -> send(VerbaleHttpClient5.watch(apache()), url));
    }

    private static HttpAsyncClientBuilder apache() {
        return HttpAsyncClients.custom()
                .setConnectionManager(PoolingAsyncClientConnectionManagerBuilder.create()
                        .setTlsStrategy(ClientTlsStrategyBuilder.create()
                                .setSslContext(trusted.sslContext())
                                .buildAsync())
                        .build());
    }

    private static String send(HttpAsyncClientBuilder builder, String url) throws Exception {
        try (CloseableHttpAsyncClient client = builder.build()) {
            client.start();
            SimpleHttpResponse response = client.execute(
                            SimpleRequestBuilder.post(url)
                                    .setBody(BEDS, ContentType.APPLICATION_JSON)
                                    .build(),
                            null)
                    .get();
            return response.getVersion() + " " + response.getCode() + " " + response.getBodyText();
        }
    }
}
