package dev.verbale.http.difficult;

import dev.verbale.hostile.Keystore;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLServerSocket;

/** A server whose certificate nobody trusts. */
final class SelfSigned implements AutoCloseable {

    private final SSLServerSocket listening;

    SelfSigned() throws Exception {
        Path folder = Files.createTempDirectory("self-signed");
        Path file = folder.resolve("keys.p12");
        Keystore.make(file, "orto.example");
        KeyStore keys = KeyStore.getInstance("PKCS12");
        try (InputStream in = Files.newInputStream(file)) {
            keys.load(in, Keystore.WORD.toCharArray());
        }
        Files.delete(file);
        Files.delete(folder);
        KeyManagerFactory managers = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
        managers.init(keys, Keystore.WORD.toCharArray());
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(managers.getKeyManagers(), null, null);
        listening = (SSLServerSocket)
                context.getServerSocketFactory().createServerSocket(0, 50, InetAddress.getLoopbackAddress());
        var accepting = new Thread(this::accept, "self-signed server");
        accepting.setDaemon(true);
        accepting.start();
    }

    private void accept() {
        while (!listening.isClosed()) {
            try (var socket = listening.accept()) {
                socket.getInputStream().read();
            } catch (IOException refused) {
                continue;
            }
        }
    }

    int port() {
        return listening.getLocalPort();
    }

    @Override
    public void close() throws IOException {
        listening.close();
    }
}
