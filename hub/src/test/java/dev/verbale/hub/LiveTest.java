package dev.verbale.hub;

import static dev.verbale.hub.HubFixture.until;
import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.folder.RunFolder;
import dev.verbale.spi.AdapterRecorder;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** Many look at one run while it goes. */
@Timeout(120)
class LiveTest {

    private static final int READERS = 300;

    @TempDir
    Path root;

    private final HttpClient client = HttpClient.newHttpClient();
    private HubFixture hub;
    private String read;

    @BeforeEach
    void begin() throws Exception {
        hub = new HubFixture(root.resolve("server"), null);
        read = hub.token("orto", Role.READ, "Ada");
    }

    @AfterEach
    void end() {
        hub.close();
    }

    /** Somebody who looks, and how often something changed for them. */
    private CompletableFuture<Void> look(URI events, AtomicInteger changes) {
        return client.sendAsync(
                        HttpRequest.newBuilder(events)
                                .header("Authorization", "Bearer " + read)
                                .build(),
                        BodyHandlers.ofLines())
                .thenAcceptAsync(
                        answer -> answer.body()
                                .filter(line -> line.startsWith("event: changed"))
                                .forEach(line -> changes.incrementAndGet()),
                        task -> {
                            var reader = new Thread(task, "reader");
                            reader.setDaemon(true);
                            reader.start();
                        });
    }

    @Test
    void hundreds_look_at_a_run_all_are_told_and_none_holds_up_another() throws Exception {
        AdapterRecorder recorder = HubFixture.recorder(root.resolve("live"));
        HubFixture.test(recorder, "first", true);
        var isOver = new AtomicBoolean();
        String send = hub.token("orto", Role.SEND, "CI");
        var sent = CompletableFuture.runAsync(() -> {
            try {
                hub.sender(new RunFolder(recorder.folder()), send, "orto", "night")
                        .follow(Duration.ofSeconds(60), isOver::get);
            } catch (Exception failed) {
                throw new IllegalStateException(failed);
            }
        });
        until(() -> hub.get(read, "projects/orto/runs/night/").statusCode() == 200);
        URI events = hub.address().resolve("projects/orto/runs/night/events");
        List<Socket> deaf = new ArrayList<>(); // they never read what they are sent
        for (int i = 0; i < 20; i++) deaf.add(deaf(events));
        List<AtomicInteger> changes = new ArrayList<>();
        List<CompletableFuture<Void>> readers = new ArrayList<>();
        for (int i = 0; i < READERS; i++) {
            changes.add(new AtomicInteger());
            readers.add(look(events, changes.get(i)));
        }
        until(() -> changes.stream().allMatch(times -> times.get() > 0));
        assertThat(hub.get(HubFixture.ADMINISTER, "metrics").body()).contains("verbale_hub_streams " + (READERS + 20));
        List<Integer> before = changes.stream().map(AtomicInteger::get).toList();

        HubFixture.test(recorder, "bad", false);

        until(() -> {
            for (int i = 0; i < READERS; i++) if (changes.get(i).get() <= before.get(i)) return false;
            return true;
        });
        // What they were told of may have been the first test still; of the second they are told once more.
        until(() -> hub.get(read, "projects/orto/runs/night/").body().contains("weeds in bad"));
        assertThat(Thread.getAllStackTraces().keySet().stream()
                        .filter(thread -> thread.getName().startsWith("qtp")))
                .as("no reader holds a thread of the server's")
                .hasSizeLessThan(100);
        HubFixture.end(recorder);
        isOver.set(true);
        sent.get(60, TimeUnit.SECONDS);
        hub.close();
        CompletableFuture.allOf(readers.toArray(CompletableFuture[]::new))
                .handle((done, cut) -> "over")
                .get(60, TimeUnit.SECONDS);
        for (Socket socket : deaf) socket.close();
    }

    private Socket deaf(URI events) throws Exception {
        var socket = new Socket(InetAddress.getLoopbackAddress(), hub.address().getPort());
        socket.setSoTimeout(20_000);
        socket.getOutputStream()
                .write(("GET " + events.getPath() + " HTTP/1.1\r\nHost: x\r\nAuthorization: Bearer " + read
                                + "\r\n\r\n")
                        .getBytes(StandardCharsets.ISO_8859_1));
        InputStream in = socket.getInputStream();
        assertThat(new String(in.readNBytes(12), StandardCharsets.ISO_8859_1)).isEqualTo("HTTP/1.1 200");
        return socket;
    }

    @Test
    void who_goes_is_forgotten() throws Exception {
        AdapterRecorder recorder = HubFixture.recorder(root.resolve("run"));
        HubFixture.test(recorder, "first", true);
        HubFixture.end(recorder);
        hub.sender(new RunFolder(recorder.folder()), hub.token("orto", Role.SEND, "CI"), "orto", "night")
                .send();
        until(() -> hub.get(read, "projects/orto/runs/night/").statusCode() == 200);
        Socket gone = deaf(hub.address().resolve("projects/orto/events"));
        assertThat(hub.get(HubFixture.ADMINISTER, "metrics").body()).contains("verbale_hub_streams 1\n");
        gone.setSoLinger(true, 0);

        gone.close();

        until(() -> hub.get(HubFixture.ADMINISTER, "metrics").body().contains("verbale_hub_streams 0\n"));
    }
}
