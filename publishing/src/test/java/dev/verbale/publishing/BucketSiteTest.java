package dev.verbale.publishing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.testing.StorageServer;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.TreeSet;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import software.amazon.awssdk.http.urlconnection.UrlConnectionHttpClient;
import software.amazon.awssdk.services.s3.S3Client;

/** A site in a bucket of a real storage. */
class BucketSiteTest extends SiteContract {

    @TempDir
    static Path folder;

    private static StorageServer server;
    private static int sites;

    private final int number = ++sites;

    @BeforeAll
    static void start() throws Exception {
        server = StorageServer.start(folder.resolve("storage"));
        server.name();
    }

    @AfterAll
    static void stop() throws Exception {
        StorageServer.unname();
        server.close();
    }

    private String prefix() {
        return "site" + number + "/";
    }

    @Override
    SiteStore store() throws IOException {
        return SiteStore.of("s3://orto/" + prefix());
    }

    /** The storage of the tests looks at a condition and then writes; those that people use do both at once. */
    @Override
    SiteStore shared() throws IOException {
        return new Forwarding(store()) {
            @Override
            public String replace(String name, byte[] bytes, String version) throws IOException {
                synchronized (BucketSiteTest.class) {
                    return super.replace(name, bytes, version);
                }
            }
        };
    }

    private static S3Client client() {
        return S3Client.builder()
                .httpClientBuilder(UrlConnectionHttpClient.builder())
                .forcePathStyle(true)
                .build();
    }

    @Override
    Set<String> names() {
        Set<String> names = new TreeSet<>();
        try (S3Client client = client()) {
            client.listObjectsV2Paginator(ask -> ask.bucket("orto").prefix(prefix()))
                    .contents()
                    .forEach(one -> names.add(one.key().substring(prefix().length())));
        }
        return names;
    }

    @Override
    int step() {
        return Boolean.getBoolean("verbale.night") ? 1 : 9;
    }

    @Test
    void a_host_says_what_each_file_is_by_what_the_storage_knows() throws Exception {
        try (SiteStore store = store()) {
            new Site(store, "Orto", 5)
                    .publish(run(root.resolve("a"), "night", "main", null), dev.verbale.report.PageOptions.PLAIN);
        }
        try (S3Client client = client()) {
            assertThat(client.headObject(ask -> ask.bucket("orto").key(prefix() + "index.html"))
                            .contentType())
                    .startsWith("text/html");
            String script = names().stream()
                    .filter(name -> name.endsWith("data/run.js"))
                    .findFirst()
                    .orElseThrow();
            assertThat(client.headObject(ask -> ask.bucket("orto").key(prefix() + script))
                            .contentType())
                    .startsWith("text/javascript");
        }
    }

    @Test
    void a_bucket_that_is_not_there_and_a_storage_that_is_away_are_named() throws Exception {
        Files.writeString(root.resolve("x"), "x");
        try (SiteStore none = SiteStore.of("s3://nobodys/site")) {
            assertThatThrownBy(() -> none.put("x", root.resolve("x")))
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("s3://nobodys/site/ refused")
                    .hasMessageNotContaining("watering-can");
            assertThatThrownBy(() -> none.read("x")).isInstanceOf(IOException.class);
        }
    }
}
