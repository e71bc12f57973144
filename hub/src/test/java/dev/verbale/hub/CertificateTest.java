package dev.verbale.hub;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.hostile.Keystore;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.KeyStore;
import java.security.cert.X509Certificate;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLHandshakeException;
import javax.net.ssl.TrustManagerFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A hub with a certificate of its own. */
class CertificateTest {

    @TempDir
    Path root;

    private Path keystore(String name) throws Exception {
        Path file = root.resolve(name + ".p12");
        Keystore.make(file, name);
        return file;
    }

    private static HttpClient trusting(Path keystore) throws Exception {
        KeyStore keys = KeyStore.getInstance("PKCS12");
        try (InputStream in = Files.newInputStream(keystore)) {
            keys.load(in, Keystore.WORD.toCharArray());
        }
        KeyStore trusted = KeyStore.getInstance("PKCS12");
        trusted.load(null, null);
        trusted.setCertificateEntry(Keystore.ALIAS, keys.getCertificate(Keystore.ALIAS));
        TrustManagerFactory managers = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        managers.init(trusted);
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(null, managers.getTrustManagers(), null);
        return HttpClient.newBuilder().sslContext(context).build();
    }

    private static HttpResponse<String> get(HttpClient client, URI address) throws Exception {
        return client.send(HttpRequest.newBuilder(address).build(), BodyHandlers.ofString());
    }

    @Test
    void it_speaks_https_alone_its_cookie_too_and_a_new_certificate_counts_without_an_end() throws Exception {
        Path first = keystore("first");
        Path used = Files.copy(first, root.resolve("used.p12"));
        HubOptions options = HubFixture.options(root.resolve("hub"), 0)
                .withCertificate(new HubOptions.Certificate(used, Keystore.WORD));
        assertThat(options.toString()).doesNotContain(Keystore.WORD);
        try (Hub hub = Hub.start(options)) {
            assertThat(hub.address().getScheme()).isEqualTo("https");
            HttpClient client = trusting(first);
            assertThat(get(client, hub.address().resolve("health")).statusCode())
                    .isEqualTo(200);
            HttpResponse<String> entered = client.send(
                    HttpRequest.newBuilder(hub.address().resolve("enter"))
                            .header("Content-Type", "application/x-www-form-urlencoded")
                            .header("Origin", hub.address().toString().replaceFirst("/$", ""))
                            .POST(BodyPublishers.ofString("token=" + HubFixture.ADMINISTER))
                            .build(),
                    BodyHandlers.ofString());
            assertThat(entered.headers().firstValue("Set-Cookie").orElse("")).contains("; Secure");
            try (var socket =
                    new Socket(InetAddress.getLoopbackAddress(), hub.address().getPort())) {
                socket.setSoTimeout(20_000);
                socket.getOutputStream()
                        .write("GET /health HTTP/1.1\r\nHost: x\r\n\r\n".getBytes(StandardCharsets.US_ASCII));
                assertThat(new String(socket.getInputStream().readAllBytes(), StandardCharsets.ISO_8859_1))
                        .as("without TLS")
                        .doesNotContain("200");
            } catch (IOException reset) {
                assertThat(reset).hasMessageContaining("reset");
            }

            Path second = keystore("second");
            hub.lookAtCertificate();
            Files.move(second, used, StandardCopyOption.REPLACE_EXISTING);
            hub.lookAtCertificate();

            HttpClient renewed = trusting(used);
            HttpResponse<String> answer = get(renewed, hub.address().resolve("health"));
            assertThat(answer.statusCode()).isEqualTo(200);
            assertThat(((X509Certificate) answer.sslSession().orElseThrow().getPeerCertificates()[0])
                            .getSubjectX500Principal()
                            .getName())
                    .isEqualTo("CN=second");
            assertThatThrownBy(() -> get(trusting(first), hub.address())).isInstanceOf(SSLHandshakeException.class);
        }
    }

    @Test
    void a_certificate_that_cannot_be_read_is_named_without_its_password() throws Exception {
        Path good = keystore("good");
        for (var bad : new HubOptions.Certificate[] {
            new HubOptions.Certificate(root.resolve("none.p12"), Keystore.WORD),
            new HubOptions.Certificate(good, "turnip-4711")
        })
            assertThatThrownBy(() ->
                            Hub.start(HubFixture.options(root.resolve("hub"), 0).withCertificate(bad)))
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining(bad.keystore().toString())
                    .hasMessageNotContaining("turnip");
    }
}
