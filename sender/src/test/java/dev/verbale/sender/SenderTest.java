package dev.verbale.sender;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.ci.CiSystem;
import dev.verbale.folder.ResultsRoot;
import dev.verbale.hub.Hub;
import dev.verbale.hub.HubOptions;
import dev.verbale.results.RunReader;
import dev.verbale.sending.RunSender;
import dev.verbale.sending.SendOptions;
import dev.verbale.testing.Jvm;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;
import org.junit.jupiter.api.io.TempDir;

/** JVMs that record send their run to a real hub while it goes, and no test knows. */
@Timeout(120)
class SenderTest {

    private static final String ADMINISTER = "a-token-that-may-do-everything";

    @TempDir
    Path root;

    private Hub hub;
    private String token;

    @BeforeEach
    void begin() throws Exception {
        hub = Hub.start(HubOptions.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), root.resolve("hub"))
                .withAdminister(ADMINISTER));
        token = ask("POST", "api/v1/tokens?project=orto&role=send&label=CI").strip();
    }

    @AfterEach
    void end() {
        hub.close();
    }

    private String ask(String method, String path) throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(hub.address().resolve(path))
                                .header("Authorization", "Bearer " + ADMINISTER)
                                .method(method, BodyPublishers.noBody())
                                .build(),
                        BodyHandlers.ofString())
                .body();
    }

    /** A JVM that records into the run {@code shared}, and what it has printed. */
    private static final class Recording {
        private final Process process;
        private final BufferedReader output;

        Recording(Process process) {
            this.process = process;
            output = new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        }

        void until(String line) throws IOException {
            for (String read = output.readLine(); read != null; read = output.readLine())
                if (read.contains(line)) return;
            throw new AssertionError("it ended before '" + line + "'");
        }

        void more() throws IOException {
            process.getOutputStream().write('\n');
            process.getOutputStream().flush();
        }

        /** Has it end, and gives the rest of its output. */
        String end() throws Exception {
            process.getOutputStream().close();
            String rest = String.join("\n", output.lines().toList());
            assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
            return rest + "\nexit " + process.exitValue();
        }
    }

    private Recording record(String name, URI to, String... more) throws IOException {
        List<String> options = new ArrayList<>(
                List.of("-Dverbale.hub=" + to, "-Dverbale.hub.project=orto", "-Dverbale.hub.run=night"));
        options.addAll(List.of(more));
        return start(name, options);
    }

    private Recording start(String name, List<String> settings) throws IOException {
        List<String> options =
                new ArrayList<>(List.of("-Dverbale.root=" + root.resolve("runs"), "-Dverbale.run=shared"));
        options.addAll(settings);
        var builder = new ProcessBuilder(Jvm.command(options, Jvm.classPath(), Gardener.class, name))
                .redirectErrorStream(true);
        builder.environment().keySet().removeAll(CiSystem.variables()); // of the build that runs this test
        builder.environment().put("VERBALE_HUB_TOKEN", token);
        return new Recording(builder.start());
    }

    private interface Question {
        boolean isSo() throws Exception;
    }

    private static void until(Question question) throws Exception {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
        while (!question.isSo()) {
            assertThat(System.nanoTime()).as("in time").isLessThan(end);
            LockSupport.parkNanos(50_000_000);
        }
    }

    private boolean isThere(int tests) throws Exception {
        Path copy = root.resolve("hub/copies/orto/night");
        return Files.exists(copy.resolve("run.json"))
                && RunReader.read(copy).counts().all() == tests;
    }

    @Test
    void jvms_of_one_run_send_it_while_it_goes_and_the_last_one_says_that_it_is_all() throws Exception {
        Recording one = record("one", hub.address());
        one.until("recorded one0");
        until(() -> isThere(1));
        Recording two = record("bad", hub.address());
        two.until("recorded bad0");
        until(() -> isThere(2));

        String first = one.end();
        two.more();
        two.until("recorded bad1");
        until(() -> isThere(3));
        String last = two.end();

        assertThat(first).contains("exit 0").doesNotContain("Verbale: sent", "not sent");
        assertThat(last).contains("exit 0", "Verbale: sent to " + hub.address() + "projects/orto/runs/night/");
        until(() -> ask("GET", "projects/orto/runs/night/").contains("2 of 3 tests did not pass"));
        assertThat(root.resolve("runs/shared/senders.lock")).doesNotExist();
    }

    @Test
    void a_hub_that_is_away_or_never_answers_changes_nothing_and_the_rest_is_sent_later() throws Exception {
        try (var deaf = new ServerSocket(0, 50, InetAddress.getLoopbackAddress())) {
            for (URI nowhere :
                    List.of(URI.create("http://127.0.0.1:1"), URI.create("http://127.0.0.1:" + deaf.getLocalPort()))) {
                Recording recording = record(nowhere.getPort() == 1 ? "one" : "two", nowhere);
                recording.until("recorded ");
                long from = System.nanoTime();
                String output = recording.end();
                assertThat(output)
                        .contains(
                                "exit 0", "the run was not sent as a whole", "'verbale hub send' sends what is missing")
                        .doesNotContain("Exception", "\tat ", token);
                assertThat(TimeUnit.NANOSECONDS.toSeconds(System.nanoTime() - from))
                        .isLessThan(50);
            }
        }
        var run = new ResultsRoot(root.resolve("runs")).runs().get(0);
        new RunSender(run, new SendOptions(hub.address(), "orto", "night", token, Duration.ofSeconds(20))).send();
        until(() -> isThere(2));
    }

    @Test
    void a_hub_and_a_project_are_enough_and_the_run_is_called_as_its_folder() throws Exception {
        Recording recording = start("one", List.of("-Dverbale.hub=" + hub.address(), "-Dverbale.hub.project=orto"));

        assertThat(recording.end())
                .contains("exit 0", "Verbale: sent to " + hub.address() + "projects/orto/runs/shared/");
    }

    @Test
    void where_nothing_is_set_nothing_is_said() throws Exception {
        assertThat(start("one", List.of()).end()).contains("exit 0").doesNotContain("sent", "verbale-sender");
    }

    @Test
    @EnabledIfSystemProperty(named = "verbale.night", matches = "true", disabledReason = "by night")
    void where_it_is_off_or_cannot_be_nothing_is_sent_and_no_thread_is_there() throws Exception {
        Recording off = record("one", hub.address(), "-Dverbale.hub=off");
        assertThat(off.end())
                .doesNotContain("verbale-sender", "Verbale: sent", "not sent")
                .contains("exit 0");
        Recording built = record("one", hub.address(), "-Dverbale.build.page=true");
        assertThat(built.end()).doesNotContain("verbale-sender", "Verbale: sent");
        Recording nobodys = record("one", hub.address(), "-Dverbale.hub.project=none");
        assertThat(nobodys.end()).contains("this run is not sent: verbale.hub.project", "exit 0");
        Recording wrong = record("one", URI.create("ftp://orto.example"));
        assertThat(wrong.end()).contains("this run is not sent: 'ftp://orto.example' is no address", "exit 0");
        String before = token;
        token = "guess";
        Recording refused = record("one", hub.address());
        assertThat(refused.end())
                .contains("not sent as a whole", "401", "exit 0")
                .doesNotContain(before);
    }
}
