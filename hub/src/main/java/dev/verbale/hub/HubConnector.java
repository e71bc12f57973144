package dev.verbale.hub;

import java.io.IOException;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.time.Duration;
import java.util.Collections;
import org.eclipse.jetty.server.HttpConfiguration;
import org.eclipse.jetty.server.HttpConnectionFactory;
import org.eclipse.jetty.server.SecureRequestCustomizer;
import org.eclipse.jetty.server.Server;
import org.eclipse.jetty.server.ServerConnector;
import org.eclipse.jetty.server.SslConnectionFactory;
import org.eclipse.jetty.util.ssl.KeyStoreScanner;
import org.eclipse.jetty.util.ssl.SslContextFactory;

/** Where the hub listens: by HTTP, or with a certificate of its own by HTTPS. */
final class HubConnector {

    private static final Duration IDLE = Duration.ofSeconds(60);
    private static final int LOOKED_AT_EVERY_SECONDS = 60;

    private HubConnector() {}

    /** @throws IOException where the certificate cannot be used */
    static ServerConnector of(Server server, HubOptions options) throws IOException {
        var http = new HttpConfiguration();
        http.setSendServerVersion(false);
        HubOptions.Certificate certificate = options.certificate();
        ServerConnector connector;
        if (certificate == null) connector = new ServerConnector(server, new HttpConnectionFactory(http));
        else {
            check(certificate);
            var tls = new SslContextFactory.Server();
            tls.setKeyStorePath(certificate.keystore().toAbsolutePath().toString());
            tls.setKeyStorePassword(certificate.password());
            // Who asks by another name is answered: the client decides whether the certificate is the right one.
            http.addCustomizer(new SecureRequestCustomizer(false));
            connector = new ServerConnector(
                    server, new SslConnectionFactory(tls, "http/1.1"), new HttpConnectionFactory(http));
            var scanner = new KeyStoreScanner(tls);
            scanner.setScanInterval(LOOKED_AT_EVERY_SECONDS);
            server.addBean(scanner);
        }
        connector.setHost(options.address().getAddress().getHostAddress());
        connector.setPort(options.address().getPort());
        connector.setIdleTimeout(IDLE.toMillis());
        server.addConnector(connector);
        return connector;
    }

    private static void check(HubOptions.Certificate certificate) throws IOException {
        try {
            KeyStore keys = KeyStore.getInstance(
                    certificate.keystore().toFile(), certificate.password().toCharArray());
            for (String alias : Collections.list(keys.aliases())) if (keys.isKeyEntry(alias)) return;
        } catch (IOException | GeneralSecurityException | IllegalArgumentException unusable) {
            throw new IOException(
                    "The certificate in " + certificate.keystore() + " cannot be used: " + unusable.getMessage(),
                    unusable);
        }
        throw new IOException("There is no key in " + certificate.keystore() + ".");
    }
}
