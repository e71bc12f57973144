package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.folder.RunFolder;
import dev.verbale.hub.Hub;
import dev.verbale.hub.HubOptions;
import dev.verbale.lake.Lake;
import dev.verbale.results.SampleRun;
import dev.verbale.sending.RunSender;
import dev.verbale.sending.SendOptions;
import dev.verbale.vocabulary.Outcome;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What a hub remembers comes into its lake by itself. */
class HourlyLakeTest {

    private static final String TOKEN = "a token that may do everything";
    private static final Duration SOON = Duration.ofMillis(20);

    @TempDir
    Path work;

    private interface Condition {
        boolean holds() throws Exception;
    }

    private static void until(Condition condition) throws Exception {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
        while (!condition.holds()) {
            assertThat(System.nanoTime()).as("it never came").isLessThan(end);
            LockSupport.parkNanos(5_000_000);
        }
    }

    private void send(Hub hub, String project, String run) throws Exception {
        Path root = work.resolve("runs-of-" + project);
        SampleRun.in(root, run).test("grows", Outcome.PASSED, null).read();
        new RunSender(
                        new RunFolder(root.resolve(run)),
                        new SendOptions(hub.address(), project, null, TOKEN, Duration.ofSeconds(20)))
                .send();
    }

    private static long runs(Path lake, String project) throws IOException {
        Path day = lake.resolve("manifest/project=" + project);
        if (!Files.isDirectory(day)) return 0;
        long runs = 0;
        try (var files = Files.list(day)) {
            for (Path file : files.toList()) runs += Files.readString(file).split("\"run_id\"", -1).length - 1;
        }
        return runs;
    }

    @Test
    void runs_of_each_project_come_in_and_later_ones_too() throws Exception {
        Path lake = work.resolve("lake");
        HubOptions options = HubOptions.of(new InetSocketAddress("127.0.0.1", 0), work.resolve("hub"))
                .withAdminister(TOKEN);
        try (Hub hub = Hub.start(options)) {
            send(hub, "orto", "2026-11-30_120000_aaaa");
            try (var hourly = new HourlyLake(hub, new Lake(lake), SOON, SOON)) {
                until(() -> runs(lake, "orto") == 1);
                send(hub, "orto", "2026-11-30_130000_aaaa");
                send(hub, "shed", "2026-12-01_120000_aaaa");
                until(() -> runs(lake, "orto") == 2 && runs(lake, "shed") == 1);
            }
        }
        assertThat(new Lake(lake).projects()).containsExactly("orto", "shed");
    }

    @Test
    void one_that_fails_is_tried_again_and_costs_no_other_project() throws Exception {
        Path lake = Files.createDirectories(work.resolve("lake"));
        Path inTheWay = Files.createDirectories(lake.resolve("manifest/project=orto/day=2026-11-24.json"));
        HubOptions options = HubOptions.of(new InetSocketAddress("127.0.0.1", 0), work.resolve("hub"))
                .withAdminister(TOKEN);
        try (Hub hub = Hub.start(options)) {
            send(hub, "orto", "2026-11-30_120000_aaaa");
            send(hub, "shed", "2026-12-01_120000_aaaa");
            try (var hourly = new HourlyLake(hub, new Lake(lake), SOON, SOON)) {
                until(() -> runs(lake, "shed") == 1);
                assertThat(inTheWay).isDirectory();
                Files.delete(inTheWay);
                until(() -> runs(lake, "orto") == 1);
            }
        }
    }
}
