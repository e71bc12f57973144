package dev.verbale.testing;

import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;

/** A storage that speaks S3, with a bucket {@code orto}, in a process of its own. {@code bin/storage} starts it. */
public final class StorageServer implements AutoCloseable {

    private static final Path PROGRAM = Path.of("../bin/storage").toAbsolutePath();

    private final Path folder;
    private final int port;
    private Process process;

    private StorageServer(Path folder, int port) {
        this.folder = folder;
        this.port = port;
    }

    public static StorageServer start(Path folder) throws Exception {
        Files.createDirectories(folder.resolve("orto"));
        int port;
        try (var free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
            port = free.getLocalPort();
        }
        var server = new StorageServer(folder, port);
        server.begin();
        return server;
    }

    /** Begins it, at first or again. */
    public void begin() throws Exception {
        process = new ProcessBuilder("bash", PROGRAM.toString(), folder.toString(), String.valueOf(port))
                .redirectErrorStream(true)
                .redirectOutput(folder.resolveSibling("storage.log").toFile())
                .start();
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
        while (!isThere()) {
            if (!process.isAlive() || System.nanoTime() > end)
                throw new AssertionError(
                        "No storage. bin/storage says: " + Files.readString(folder.resolveSibling("storage.log")));
            LockSupport.parkNanos(50_000_000);
        }
    }

    private boolean isThere() {
        try {
            var asked = (HttpURLConnection)
                    URI.create("http://127.0.0.1:" + port).toURL().openConnection();
            return asked.getResponseCode() > 0;
        } catch (IOException notYet) {
            return false;
        }
    }

    /** What a hub finds in its environment. */
    public Map<String, String> environment() {
        return Map.of(
                "AWS_ENDPOINT_URL_S3", "http://127.0.0.1:" + port,
                "AWS_REGION", "eu-south-1",
                "AWS_ACCESS_KEY_ID", "garden",
                "AWS_SECRET_ACCESS_KEY", "watering-can");
    }

    /** The same for one in this JVM. */
    public void name() {
        System.setProperty("aws.endpointUrlS3", "http://127.0.0.1:" + port);
        System.setProperty("aws.region", "eu-south-1");
        System.setProperty("aws.accessKeyId", "garden");
        System.setProperty("aws.secretAccessKey", "watering-can");
    }

    public static void unname() {
        for (String name : List.of("aws.endpointUrlS3", "aws.region", "aws.accessKeyId", "aws.secretAccessKey"))
            System.clearProperty(name);
    }

    public void end() throws InterruptedException {
        process.destroyForcibly().waitFor();
    }

    @Override
    public void close() throws InterruptedException {
        end();
    }
}
