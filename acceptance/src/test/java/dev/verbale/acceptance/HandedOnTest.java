package dev.verbale.acceptance;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import com.sun.net.httpserver.HttpServer;
import dev.verbale.folder.FolderTree;
import dev.verbale.hostile.ByNight;
import dev.verbale.testing.Jvm;
import dev.verbale.testing.StorageServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.openqa.selenium.By;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Runs that are handed on by the command line alone, to servers as strangers have them, and read there. */
class HandedOnTest {

    private static final Path JAR = Checkout.ROOT.resolve("cli/target/verbale.jar");

    private static final Map<String, String> JOB = Map.of("GITHUB_ACTIONS", "true", "GITHUB_REF_NAME", "main");

    @TempDir
    Path work;

    private final Map<String, String> environment = new HashMap<>();

    private void record(String... arguments) throws Exception {
        List<String> all = new ArrayList<>(List.of(RecordedShard.class.getName()));
        all.addAll(List.of(arguments));
        assertThat(Jvm.java(JOB, work, all.toArray(String[]::new)).code()).isZero();
    }

    private String verbale(int code, String... arguments) throws Exception {
        List<String> all = new ArrayList<>(List.of("-jar", JAR.toString()));
        all.addAll(List.of(arguments));
        Jvm done = Jvm.bareJava(environment, work, all.toArray(String[]::new));
        assertThat(done.code()).as("%s: %s", List.of(arguments), done.output()).isEqualTo(code);
        return done.output();
    }

    /** As two CI jobs do, whose machines have nothing of each other. */
    @Test
    void a_lake_in_a_bucket_is_written_from_two_machines_and_asked_from_a_third() throws Exception {
        try (var storage = StorageServer.start(work.resolve("storage"))) {
            environment.putAll(storage.environment());
            record();
            verbale(0, "history", "add");
            String[] export = {"history", "export", "--to", "s3://orto/lake", "--project", "garden"};
            assertThat(verbale(0, export)).startsWith("1 run of garden came in, 0 were there: ");
            assertThat(verbale(0, export)).startsWith("0 runs of garden came in, 1 were there: 0 files");
            FolderTree.delete(work.resolve(".verbale"));
            FolderTree.delete(work.resolve("target/verbale"));
            record();
            verbale(0, "history", "add");
            assertThat(verbale(0, export)).startsWith("1 run of garden came in, 0 were there: ");
            FolderTree.delete(work.resolve(".verbale"));

            String[] question = {
                "runs",
                "query",
                "--lake",
                "s3://orto/lake",
                "--project",
                "garden",
                "--format",
                "csv",
                "select count(*) as runs from runs"
            };
            assertThat(verbale(0, question)).isEqualToNormalizingNewlines("runs\n2\n");
            assertThat(work.resolve(".verbale/.gitignore")).hasContent("*");
            assertThat(verbale(0, question)).isEqualToNormalizingNewlines("runs\n2\n");
            assertThat(verbale(3, "runs", "query", "--lake", "s3://orto/none", "select 1"))
                    .contains("there is no lake in s3://orto/none");
        }
        verbale(0, "history", "add");
        assertThat(verbale(4, "history", "export", "--to", "s3://orto/lake", "--project", "garden"))
                .contains("s3://orto/lake/ refused");
    }

    /** Hosts may forbid scripts; who opens a page there sees what failed. */
    @Test
    void a_site_in_a_bucket_is_read_with_scripts_and_without() throws Exception {
        record();
        Path bucket = work.resolve("storage");
        try (var storage = StorageServer.start(bucket)) {
            environment.putAll(storage.environment());
            verbale(0, "publish", "--to", "s3://orto/web");
            assertThat(verbale(0, "publish", "--to", "s3://orto/web")).endsWith(" 0 of them sent\n");
        }
        var driver = Browsers.start();
        var strict = new boolean[1];
        HttpServer host = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        host.createContext("/", exchange -> {
            if (strict[0])
                exchange.getResponseHeaders().set("Content-Security-Policy", "default-src 'self'; script-src 'none'");
            String path = exchange.getRequestURI().getPath().substring(1);
            Path file = bucket.resolve("orto/web")
                    .resolve(path.isEmpty() || path.endsWith("/") ? path + "index.html" : path);
            byte[] bytes = Files.isRegularFile(file) ? Files.readAllBytes(file) : new byte[0];
            exchange.getResponseHeaders().set("Content-Type", type(path));
            exchange.sendResponseHeaders(bytes.length == 0 ? 404 : 200, bytes.length == 0 ? -1 : bytes.length);
            exchange.getResponseBody().write(bytes);
            exchange.close();
        });
        host.start();
        try {
            String site = "http://127.0.0.1:" + host.getAddress().getPort() + "/";
            driver.get(site + "latest/main/index.html#/test/sample.SwapTest.swaps");
            awaitText(driver, "no seeds");
            assertThat(driver.getCurrentUrl()).contains("/pages/", "#/test/sample.SwapTest.swaps");
            driver.get("about:blank");

            strict[0] = true;
            driver.get(site);
            driver.findElement(By.cssSelector("table a")).click();
            awaitText(driver, "no seeds");
            assertThat(driver.getCurrentUrl()).contains("/pages/");
            assertThat(driver.findElement(By.tagName("body")).getText()).contains("swaps", "1 of 2 tests");
        } finally {
            driver.quit();
            host.stop(0);
        }
    }

    private static String type(String path) {
        if (path.endsWith(".js")) return "text/javascript";
        if (path.endsWith(".css")) return "text/css";
        if (path.endsWith(".svg")) return "image/svg+xml";
        return "text/html; charset=utf-8";
    }

    private static void awaitText(ChromeDriver driver, String text) {
        new WebDriverWait(driver, Duration.ofSeconds(20))
                .withMessage(() -> text + " on " + driver.getCurrentUrl() + ": "
                        + driver.findElement(By.tagName("body")).getText())
                .until(d -> d.findElement(By.tagName("body")).getText().contains(text));
    }

    @Test
    @ByNight // by day RunMailTest asks what is news
    void what_was_fixed_is_mailed_once_and_again_where_somebody_asks() throws Exception {
        environment.put("VERBALE_HISTORY", "history");
        var server = new GreenMail(new ServerSetup(0, "127.0.0.1", "smtp"));
        server.start();
        try {
            List<String> mail = List.of(
                    "mail",
                    "--to",
                    "ada@orto.example",
                    "--from",
                    "ci@orto.example",
                    "--server",
                    "smtp://127.0.0.1:" + server.getSmtp().getPort());
            record();
            verbale(0, "history", "add");
            assertThat(verbale(0, with(mail, "--when", "fixed"))).contains("Nothing is sent: ");
            assertThat(server.getReceivedMessages()).isEmpty();
            record("-Pfixed");
            verbale(0, "history", "add");

            assertThat(verbale(0, with(mail, "--when", "fixed"))).contains("Mailed to ada@orto.example", "1 fixed");
            assertThat(verbale(0, with(mail, "--when", "fixed"))).contains("was mailed to them already");
            assertThat(server.getReceivedMessages()).hasSize(1);
            verbale(0, with(mail, "--again"));
            assertThat(server.getReceivedMessages()).hasSize(2);
        } finally {
            server.stop();
        }
    }

    private static String[] with(List<String> words, String... more) {
        return Stream.concat(words.stream(), Stream.of(more)).toArray(String[]::new);
    }

    @Test
    void a_pack_that_a_job_kept_is_sent_to_the_hub_as_its_run() throws Exception {
        record();
        verbale(0, "pack", "--to", "night.zip");
        String name;
        try (Stream<Path> runs = Files.list(work.resolve("target/verbale"))) {
            name = runs.filter(Files::isDirectory)
                    .findFirst()
                    .orElseThrow()
                    .getFileName()
                    .toString();
        }
        try (var hub = new HubProcess(JAR, work.resolve("hub"))) {
            environment.putAll(hub.environment(hub.first));
            verbale(0, "hub", "send", "night.zip");
            String page = hub.ask("GET", "projects/orto/runs/" + name + "/data/run.js");
            assertThat(page).as("the page of %s", name).contains("no seeds");
        }
    }

    /** Two jobs on one machine: the second waits, and nothing of either is lost. */
    @Test
    void two_processes_publish_into_one_folder_at_once() throws Exception {
        record();
        Files.move(work.resolve("target/verbale"), work.resolve("a"));
        record("-Pfixed");
        Files.move(work.resolve("target/verbale"), work.resolve("b"));
        List<Process> both = new ArrayList<>();
        for (String root : List.of("a", "b")) both.add(publishing(onlyRun(root)));
        for (Process one : both)
            assertThat(one.waitFor())
                    .as(new String(one.getInputStream().readAllBytes()))
                    .isZero();

        assertThat(Files.readString(work.resolve("web/index.html")))
                .contains(onlyRun("a").getFileName().toString())
                .contains(onlyRun("b").getFileName().toString());
    }

    private Process publishing(Path run) throws IOException {
        return new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-XX:TieredStopAtLevel=1",
                        "-jar",
                        JAR.toString(),
                        "publish",
                        run.toString(),
                        "--to",
                        "web")
                .directory(work.toFile())
                .redirectErrorStream(true)
                .start();
    }

    private Path onlyRun(String root) throws IOException {
        try (Stream<Path> runs = Files.list(work.resolve(root))) {
            return runs.filter(Files::isDirectory).findFirst().orElseThrow();
        }
    }
}
