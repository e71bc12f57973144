package dev.verbale.hub;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.folder.RunFolder;
import dev.verbale.folder.ShardName;
import dev.verbale.hostile.ByNight;
import dev.verbale.query.PostgresServer;
import dev.verbale.results.RunReader;
import dev.verbale.sending.RunSender;
import dev.verbale.sending.SendOptions;
import dev.verbale.sending.SentRun;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.testing.Jvm;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** Hub, sender, database and network that end at any moment while a run is sent: what was acknowledged is there, once. */
@Timeout(900)
class KilledTest {

    private static final int KILLS = Boolean.getBoolean("verbale.night") ? 30 : 1;
    private static final String TOKEN = HubFixture.ADMINISTER;

    @TempDir
    Path root;

    private AdapterRecorder recorder;

    @BeforeEach
    void record() {
        recorder = HubFixture.recorder(root.resolve("runs"));
        HubFixture.test(recorder, "first", true);
    }

    /** What is killed, and comes again. */
    private interface Killed {
        void killAndBegin() throws Exception;
    }

    /** A hub in a JVM of its own: its folder and port. */
    public static final class HubOfItsOwn {
        public static void main(String[] arguments) throws Exception {
            Hub hub = Hub.start(HubFixture.options(Path.of(arguments[0]), Integer.parseInt(arguments[1])));
            System.out.println(hub.address().getPort());
            Thread.currentThread().join();
        }
    }

    /** A sender in a JVM of its own: the run's folder and the hub's address. */
    public static final class SenderOfItsOwn {
        public static void main(String[] arguments) throws Exception {
            System.out.println("sends");
            new RunSender(new RunFolder(Path.of(arguments[0])), options(URI.create(arguments[1])))
                    .follow(Duration.ofMinutes(10), () -> false);
        }
    }

    private static SendOptions options(URI hub) {
        return new SendOptions(hub, "orto", "night", TOKEN, Duration.ofSeconds(60));
    }

    private static Process start(Class<?> main, String... arguments) throws Exception {
        return new ProcessBuilder(Jvm.command(List.of(), Jvm.classPath(), main, arguments))
                .redirectErrorStream(true)
                .start();
    }

    @Test
    void a_hub_that_is_killed_loses_nothing_that_it_acknowledged() throws Exception {
        var hub = new Object() {
            Process process;
            int port;

            void begin() throws Exception {
                process = start(HubOfItsOwn.class, root.resolve("hub").toString(), String.valueOf(port));
                String line = process.inputReader().readLine();
                assertThat(line).matches("\\d+");
                port = Integer.parseInt(line);
            }
        };
        hub.begin();
        URI address = URI.create("http://127.0.0.1:" + hub.port);

        whileOneSends(address, () -> {
            hub.process.destroyForcibly().waitFor();
            hub.begin();
        });

        allIsThereOnce(root.resolve("hub/copies/orto/night"), address);
        hub.process.destroy();
        hub.process.waitFor(); // it writes until then
    }

    @Test
    @ByNight
    void a_sender_that_is_killed_is_gone_on_for_by_the_next_one() throws Exception {
        try (var hub = new HubFixture(root, null)) {
            var sender = new Object() {
                Process process;

                void begin() throws Exception {
                    process = start(
                            SenderOfItsOwn.class,
                            recorder.folder().toString(),
                            hub.address().toString());
                    assertThat(process.inputReader().readLine()).isEqualTo("sends");
                }
            };
            sender.begin();

            recordAndKill(() -> {
                sender.process.destroyForcibly().waitFor();
                sender.begin();
            });
            HubFixture.end(recorder);
            sender.process.destroyForcibly().waitFor();

            assertThat(new RunSender(new RunFolder(recorder.folder()), options(hub.address()))
                            .send()
                            .unsent())
                    .isEmpty();
            allIsThereOnce(hub.copyOf("orto", "night"), hub.address());
        }
    }

    @Test
    @ByNight
    void a_database_that_crashes_has_all_that_the_hub_acknowledged() throws Exception {
        PostgresServer server = PostgresServer.start();
        try (var hub =
                new HubFixture(root, new HubOptions.Database(server.url(server.newDatabase()), "owner", "owner's"))) {
            whileOneSends(hub.address(), () -> {
                server.crash();
                server.begin();
            });

            allIsThereOnce(hub.copyOf("orto", "night"), hub.address());
        } finally {
            server.close();
        }
    }

    @Test
    void a_network_that_cuts_delays_and_repeats_changes_nothing() throws Exception {
        try (var hub = new HubFixture(root, null);
                var network = new UnsteadyNetwork(
                        new InetSocketAddress(
                                InetAddress.getLoopbackAddress(), hub.address().getPort()),
                        7)) {
            whileOneSends(network.address(), () -> {});

            assertThat(network.cuts()).isGreaterThan(KILLS);
            assertThat(network.repeated()).isGreaterThan(KILLS);
            allIsThereOnce(hub.copyOf("orto", "night"), hub.address());
        }
    }

    private void whileOneSends(URI address, Killed killed) throws Exception {
        var isOver = new AtomicBoolean();
        CompletableFuture<SentRun> sent = CompletableFuture.supplyAsync(() -> {
            try {
                return new RunSender(new RunFolder(recorder.folder()), options(address))
                        .follow(Duration.ofMinutes(5), isOver::get);
            } catch (Exception failed) {
                throw new IllegalStateException(failed);
            }
        });
        recordAndKill(killed);
        HubFixture.end(recorder);
        isOver.set(true);
        assertThat(sent.get(300, TimeUnit.SECONDS).unsent()).isEmpty();
    }

    private void recordAndKill(Killed killed) throws Exception {
        var random = new Random(7);
        for (int kill = 0; kill < KILLS; kill++) {
            long until = System.nanoTime() + TimeUnit.MILLISECONDS.toNanos(200 + random.nextInt(800));
            for (int i = 0; System.nanoTime() < until; i++) {
                HubFixture.test(recorder, "t" + kill + "_" + i, true);
                LockSupport.parkNanos(5_000_000);
            }
            killed.killAndBegin();
        }
    }

    /** @param run its copy on the hub */
    private void allIsThereOnce(Path run, URI hub) throws Exception {
        Path copy = run.resolve("shards").resolve(ShardName.of(new RunFolder(recorder.folder())));
        HubFixture.until(() -> HubFixture.contents(copy).equals(HubFixture.contents(recorder.folder())));
        assertThat(RunReader.read(run).counts().all())
                .isEqualTo(RunReader.read(recorder.folder()).counts().all());
        HubFixture.until(() -> HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(hub.resolve("/metrics"))
                                .header("Authorization", "Bearer " + TOKEN)
                                .build(),
                        BodyHandlers.ofString())
                .body()
                .contains("verbale_hub_unstored_bytes 0\n"));
    }
}
