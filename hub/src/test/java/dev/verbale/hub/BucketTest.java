package dev.verbale.hub;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.folder.RunFolder;
import dev.verbale.hub.HubOptions.Storage;
import dev.verbale.hub.HubOptions.Storage.Bucket;
import dev.verbale.sending.RunSender;
import dev.verbale.sending.SendOptions;
import dev.verbale.sending.SentRun;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.testing.StorageServer;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.locks.LockSupport;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;

/** Files of runs in a storage that speaks S3: a real server. */
@Timeout(120)
class BucketTest {

    @TempDir
    static Path servers;

    private static StorageServer server;

    @TempDir
    Path root;

    @BeforeAll
    static void start() throws Exception {
        server = StorageServer.start(servers.resolve("storage"));
        server.name();
    }

    @AfterAll
    static void stop() throws Exception {
        StorageServer.unname();
        server.close();
    }

    private static ByteArrayInputStream bytes(String text) {
        return new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8));
    }

    private static String text(InputStream content) throws IOException {
        try (content) {
            return new String(content.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void a_folder_and_a_bucket_keep_the_same_and_let_go_what_nobody_needs() throws Exception {
        for (Storage kind : List.of(new Storage.Folder(root.resolve("objects")), Storage.of("s3://orto/kept"))) {
            HubOptions options = HubFixture.options(root.resolve("hub"), 0).withStorage(kind);
            try (HubDatabase database = HubDatabase.open(options);
                    ObjectStorage storage = ObjectStorage.open(options)) {
                var objects = new StoredObjects(database.jdbi(), storage);
                String kale = objects.put(bytes("kale"));
                assertThat(objects.put(bytes("kale"))).isEqualTo(kale).isEqualTo(Sha256.of("kale"));
                String beans = objects.put(bytes("beans"));
                String empty = objects.put(bytes(""));
                assertThat(text(objects.open(kale, 0))).isEqualTo("kale");
                assertThat(text(objects.open(kale, 2))).isEqualTo("le");
                assertThat(text(objects.open(empty, 0))).isEmpty();
                assertThatThrownBy(() -> objects.open(Sha256.of("none"), 0)).isInstanceOf(NoSuchFileException.class);
                database.jdbi().useHandle(handle -> {
                    long project = Projects.idOrNew(handle, "orto-" + kind.hashCode());
                    handle.execute("insert into runs (project_id, name) values (?, 'night')", project);
                    handle.execute("insert into parts (run_id, name) select max(id), 'one' from runs");
                    handle.execute(
                            "insert into uploads (part_id, path, size, object, stored, changed)"
                                    + " select max(id), 'a', 4, ?, 4, 1 from parts",
                            kale);
                });

                Instant now = Instant.now();
                objects.sweep(now);
                objects.sweep(now.plus(Duration.ofHours(2)));
                assertThat(text(objects.open(beans, 0))).as("it is young").isEqualTo("beans");
                objects.sweep(now.plus(Duration.ofDays(2)));
                assertThat(text(objects.open(beans, 0))).as("written down").isEqualTo("beans");
                objects.put(bytes("")); // somebody needs it once more
                objects.sweep(now.plus(Duration.ofDays(2)).plus(Duration.ofHours(2)));

                assertThatThrownBy(() -> objects.open(beans, 0)).isInstanceOf(NoSuchFileException.class);
                assertThat(text(objects.open(kale, 0))).isEqualTo("kale");
                assertThat(text(objects.open(empty, 0))).isEmpty();
                List<String> writtenDown = database.jdbi()
                        .withHandle(handle -> handle.createQuery("select object from unneeded")
                                .mapTo(String.class)
                                .list());
                assertThat(writtenDown)
                        .as("put again, it is written down again")
                        .containsExactly(empty);
            }
        }
    }

    @Test
    void what_others_have_in_the_bucket_stays() throws Exception {
        HubOptions options = HubFixture.options(root.resolve("hub"), 0).withStorage(new Bucket("orto", ""));
        Path theirs = servers.resolve("storage/orto/seeds/list.csv");
        Files.createDirectories(theirs.getParent());
        Files.writeString(theirs, "kale");
        try (HubDatabase database = HubDatabase.open(options);
                ObjectStorage storage = ObjectStorage.open(options)) {
            var objects = new StoredObjects(database.jdbi(), storage);
            objects.sweep(Instant.now().plus(Duration.ofDays(2)));
            objects.sweep(Instant.now().plus(Duration.ofDays(4)));
        }
        assertThat(theirs).hasContent("kale");
    }

    @Test
    void a_run_is_whole_though_the_storage_went_away_meanwhile_and_another_hub_has_it() throws Exception {
        try (var hub = new HubFixture(
                root.resolve("server"), null, options -> options.withStorage(Storage.of("s3://orto/runs")))) {
            String send = hub.token("orto", Role.SEND, "CI");
            AdapterRecorder recorder = HubFixture.recorder(root.resolve("run"));
            for (String test : List.of("swaps", "digs", "bad")) HubFixture.test(recorder, test, !test.equals("bad"));
            HubFixture.end(recorder);
            var run = new RunFolder(recorder.folder());
            server.end();
            var impatient = new SendOptions(hub.address(), "orto", "night", send, Duration.ofSeconds(2));
            assertThatThrownBy(() -> new RunSender(run, impatient).send())
                    .hasMessageContaining("503 the hub's storage does not answer");
            server.begin();

            SentRun sent = hub.sender(run, send, "orto", "night").send();

            assertThat(sent.unsent()).isEmpty();
            assertThat(sent.isWhole()).isTrue();
            hub.close();
            Files.move(root.resolve("server/hub/copies"), root.resolve("gone")); // as on another machine
            hub.begin();
            Path shards = hub.copyOf("orto", "night").resolve("shards");
            List<Path> copies = new ArrayList<>();
            while (copies.isEmpty() || !HubFixture.contents(copies.get(0)).equals(HubFixture.contents(run.path()))) {
                LockSupport.parkNanos(50_000_000);
                copies.clear();
                if (Files.isDirectory(shards))
                    try (var all = Files.list(shards)) {
                        copies.addAll(all.toList());
                    }
            }
        }
    }

    @Test
    void a_storage_that_cannot_be_used_is_named_without_its_secret() {
        assertThatThrownBy(() -> Hub.start(
                        HubFixture.options(root.resolve("hub"), 0).withStorage(Storage.of("s3://not-there/runs"))))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("s3://not-there")
                .hasMessageNotContaining("watering-can");
        assertThatThrownBy(() -> Storage.of("s3://A b/runs")).hasMessageContaining("cannot be the name of a bucket");
        assertThatThrownBy(() -> Storage.of("gs://orto")).hasMessageContaining("s3://BUCKET/PREFIX");
    }
}
