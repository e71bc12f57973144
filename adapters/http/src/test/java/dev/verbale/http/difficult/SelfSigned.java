package dev.verbale.http.difficult;

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

    private static final String WORD = "watering-can";

    private final SSLServerSocket listening;

    SelfSigned() throws Exception {
        Path folder = Files.createTempDirectory("self-signed");
        Path file = folder.resolve("keys.p12");
        String keytool =
                Path.of(System.getProperty("java.home"), "bin", "keytool").toString();
        Process making = new ProcessBuilder(
                        keytool,
                        "-J-XX:TieredStopAtLevel=1",
                        "-J-XX:+UseSerialGC",
                        "-genkeypair",
                        "-keyalg",
                        "EC",
                        "-dname",
                        "CN=orto.example",
                        "-alias",
                        "orto",
                        "-keystore",
                        file.toString(),
                        "-storepass",
                        WORD,
                        "-storetype",
                        "PKCS12")
                .redirectErrorStream(true)
                .start();
        String output = new String(making.getInputStream().readAllBytes());
        if (making.waitFor() != 0) throw new IOException(output);
        KeyStore keys = KeyStore.getInstance("PKCS12");
        try (InputStream in = Files.newInputStream(file)) {
            keys.load(in, WORD.toCharArray());
        }
        Files.delete(file);
        Files.delete(folder);
        KeyManagerFactory managers = KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
        managers.init(keys, WORD.toCharArray());
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
