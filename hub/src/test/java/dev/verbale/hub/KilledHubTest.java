package dev.verbale.hub;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.folder.RunFolder;
import dev.verbale.results.RunReader;
import dev.verbale.sending.RunSender;
import dev.verbale.sending.SendOptions;
import dev.verbale.sending.SentRun;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.testing.Jvm;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** A hub that is killed as a process is, at any moment, while it is sent a run: what it acknowledged is there, once. */
@Timeout(600)
class KilledHubTest {

    private static final int KILLS = Boolean.getBoolean("verbale.night") ? 30 : 1;
    private static final String TOKEN = HubFixture.ADMINISTER;

    @TempDir
    Path root;

    private Process hub;
    private int port;

    /** A hub in a JVM of its own. */
    public static void main(String[] arguments) throws Exception {
        Path folder = Path.of(arguments[0]);
        Hub hub = Hub.start(HubFixture.options(folder, Integer.parseInt(arguments[1])));
        System.out.println(hub.address().getPort());
        Thread.currentThread().join();
    }

    private void begin() throws Exception {
        hub = new ProcessBuilder(Jvm.command(
                        List.of(),
                        Jvm.classPath(),
                        KilledHubTest.class,
                        root.resolve("hub").toString(),
                        String.valueOf(port)))
                .redirectErrorStream(true)
                .start();
        String line = hub.inputReader().readLine();
        assertThat(line).matches("\\d+");
        port = Integer.parseInt(line);
    }

    @Test
    void nothing_that_was_acknowledged_is_lost_and_nothing_is_there_twice() throws Exception {
        begin();
        AdapterRecorder recorder = HubFixture.recorder(root.resolve("runs"));
        var options =
                new SendOptions(URI.create("http://127.0.0.1:" + port), "orto", "night", TOKEN, Duration.ofSeconds(60));
        var isOver = new AtomicBoolean();
        HubFixture.test(recorder, "first", true);
        CompletableFuture<SentRun> sent = CompletableFuture.supplyAsync(() -> {
            try {
                return new RunSender(new RunFolder(recorder.folder()), options)
                        .follow(Duration.ofMinutes(5), isOver::get);
            } catch (Exception failed) {
                throw new IllegalStateException(failed);
            }
        });
        var random = new Random(7);
        for (int kill = 0; kill < KILLS; kill++) {
            long until = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(200 + random.nextInt(800));
            for (int i = 0; System.nanoTime() < until; i++) {
                HubFixture.test(recorder, "t" + kill + "_" + i, true);
                LockSupport.parkNanos(5_000_000);
            }
            hub.destroyForcibly().waitFor();
            begin();
        }
        HubFixture.end(recorder);
        isOver.set(true);

        assertThat(sent.get(300, TimeUnit.SECONDS).unsent()).isEmpty();
        Path run = root.resolve("hub/copies/orto/night");
        Path copy = run.resolve("shards").resolve(dev.verbale.folder.ShardName.of(new RunFolder(recorder.folder())));
        while (!HubFixture.contents(copy).equals(HubFixture.contents(recorder.folder())))
            LockSupport.parkNanos(50_000_000);
        assertThat(RunReader.read(run).counts().all())
                .isEqualTo(RunReader.read(recorder.folder()).counts().all());
        assertThat(HttpClient.newHttpClient()
                        .send(
                                HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/metrics"))
                                        .header("Authorization", "Bearer " + TOKEN)
                                        .build(),
                                BodyHandlers.ofString())
                        .body())
                .contains("verbale_hub_unstored_bytes 0\n");
        assertThat(Files.exists(root.resolve("hub/objects"))).isTrue();
        hub.destroy();
        hub.waitFor(); // it writes until then
    }
}
