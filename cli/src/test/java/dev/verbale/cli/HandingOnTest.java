package dev.verbale.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.cli.StayingJvm.Output;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Runs that leave the machine: what comes back from a pack is what was recorded, and what was changed is found. */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class HandingOnTest {

    private static final String RUN = "2026-11-24_103107_k3f9";

    @TempDir
    static Path work;

    private StayingJvm jvm;

    @BeforeAll
    void record() throws Exception {
        AdapterRecorder recorder = AdapterRecorder.open(RecorderOptions.defaults()
                .withRoot(work.resolve("target/verbale"))
                .withRun(RUN)
                .withSummaryLine(false));
        for (String bed : new String[] {"kale", "rose"}) {
            Scope test = recorder.startTest(
                    recorder.run(),
                    TestDescriptor.of("bed-" + bed, "the " + bed + " grows")
                            .className("sample.BedTest")
                            .methodName(bed)
                            .build());
            recorder.exchange("GET", "https://orto.example/beds/" + bed)
                    .status(bed.equals("kale") ? 200 : 500)
                    .ended();
            recorder.attach("plan", bed.repeat(100).getBytes(StandardCharsets.UTF_8), MediaType.TEXT);
            var failure = new AssertionError("no " + bed);
            failure.setStackTrace(
                    new StackTraceElement[] {new StackTraceElement("sample.BedTest", bed, "BedTest.java", 7)});
            recorder.endTest(test, bed.equals("kale") ? TestEnd.passed() : TestEnd.threw(failure));
        }
        jvm = new StayingJvm(work, Map.of("CHAT_TOKEN", "turnip-4711"));
        assertThat(verbale("pack", "--to", "night.zip").code()).isZero();
    }

    @AfterAll
    void end() throws Exception {
        jvm.close();
    }

    private Output verbale(String... arguments) throws Exception {
        return jvm.run(arguments);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "failures {}",
                "failures {} --all",
                "today {}",
                "failures --by-label {}",
                "gate {}",
                "compare {}",
                "export {} --format json",
                "export {} --format junit",
                "export {} --format markdown",
                "export {} --format tests-csv",
                "export {} --format mail-html",
                "failures brief {}",
                "rerun {}",
                "runs {}",
                "history add {}",
                "join {} --output joined",
                "runs query SELECT(1) {}",
                "page {} --output site",
                "page {} --single-file --output site.html",
                "export --format har {} --output x.har",
            })
    void every_command_reads_a_pack_as_it_reads_the_folder(String command) throws Exception {
        Output ofFolder = verbale(command.replace("{}", "target/verbale/" + RUN).split(" "));
        clear();
        Output ofPack = verbale(command.replace("{}", "night.zip").split(" "));
        clear();

        assertThat(ofPack.code()).as(ofPack.err()).isEqualTo(ofFolder.code());
        assertThat(ofPack.err()).doesNotContain("\tat ");
        if (command.startsWith("runs {}")) return; // of a folder that holds runs
        assertThat(bare(ofPack.out())).isEqualTo(bare(ofFolder.out()));
    }

    private static void clear() throws Exception {
        for (String made : new String[] {"joined", "site", ".verbale"})
            dev.verbale.folder.FolderTree.delete(work.resolve(made));
        for (String made : new String[] {"x.har", "site.html"}) Files.deleteIfExists(work.resolve(made));
    }

    private static String bare(String text) {
        return text.replaceAll("\\S*target/verbale/" + RUN + "(?![\\w])", "RUN").replaceAll("\\S*night\\.zip", "RUN");
    }

    @Test
    void a_page_of_a_pack_is_written_beside_it() throws Exception {
        Output page = verbale("page", "night.zip");

        assertThat(page.out()).contains("night-page/index.html");
        assertThat(work.resolve("night-page/index.html")).exists();
    }

    @Test
    void nothing_that_is_there_is_overwritten_and_what_is_wrong_is_said() throws Exception {
        byte[] before = Files.readAllBytes(work.resolve("night.zip"));
        Output again = verbale("pack", "--to", "night.zip", "--failures-only");
        assertThat(again.code()).isEqualTo(4);
        assertThat(again.err()).contains("it is there already. Name another file, or add --overwrite");
        assertThat(work.resolve("night.zip")).hasBinaryContent(before);

        assertThat(verbale("pack", "--to", "night.tar").err()).contains("whose name ends in .zip");
        assertThat(verbale("pack", "--to", "x.zip", "--without", "videos").err())
                .contains("'videos' is none of video, frames");
        assertThat(verbale("pack", "--to", "x.zip", "--max-size", "huge").err()).contains("a size such as 20MB");
        assertThat(verbale("pack", "--to", "x.zip", "--page", "--failures-only").err())
                .contains("verbale page --leave-out");
        Output tiny = verbale("pack", "--to", "x.zip", "--max-size", "100");
        assertThat(tiny.code()).isEqualTo(4);
        assertThat(tiny.err()).contains("which is more than 100");
        assertThat(work.resolve("x.zip")).doesNotExist();
        Files.writeString(work.resolve("torn.zip"), "PK");
        Output torn = verbale("failures", "torn.zip");
        assertThat(torn.code()).isEqualTo(3);
        assertThat(torn.err())
                .contains("torn.zip: this is no ZIP archive, or it is cut off")
                .doesNotContain("\tat ");
    }

    @Test
    void a_pack_says_what_it_lacks_wherever_it_is_shown() throws Exception {
        Output packed = verbale("pack", "--to", "few.zip", "--failures-only", "--overwrite");
        String lacks = "what happened in 1 test that needs no attention";

        assertThat(packed.out()).contains("Left out: " + lacks);
        assertThat(verbale("failures", "few.zip").out().replaceAll("\\s+", " "))
                .contains("Left out of this copy: " + lacks);
        assertThat(verbale("export", "few.zip", "--format", "markdown").out().replace("\\", ""))
                .contains("Left out of this copy: " + lacks);
        assertThat(verbale("page", "few.zip", "--output", "few").out()).contains("Left out of this copy: " + lacks);
        assertThat(Files.readString(work.resolve("few/index.html"))).contains("Left out of this copy: " + lacks);
        assertThat(Files.readString(work.resolve("few/data/run.js"))).contains("\"leftOut\":\"" + lacks);
        assertThat(verbale("gate", "few.zip").code()).isEqualTo(5);
        Output remembered = verbale("history", "add", "few.zip");
        assertThat(remembered.code()).isEqualTo(3);
        assertThat(remembered.err()).contains("this is a copy that lacks something of its run");
    }

    @Test
    void a_run_is_published_once_and_what_cannot_be_meant_is_said() throws Exception {
        Output first = verbale("publish", "--to", "web", "--title", "Orto");
        Output again = verbale("publish", "night.zip", "--to", "web", "--title", "Orto");

        assertThat(first.out()).contains("web/runs/" + RUN + "/index.html", " of them sent");
        assertThat(first.code()).isZero();
        assertThat(again.code()).as(again.err()).isZero();
        assertThat(again.out()).as("a pack has the same page").endsWith(" 0 of them sent\n");
        assertThat(Files.readString(work.resolve("web/index.html"))).contains(RUN, "<title>Orto</title>");
        assertThat(verbale("publish", "--to", "https://runs.orto.example").err())
                .contains("verbale hub send --hub https://runs.orto.example");
        assertThat(verbale("publish", "--to", "ftp://x/y").code()).isEqualTo(2);
        assertThat(verbale("publish", "--to", "web", "--keep", "0").code()).isEqualTo(2);
        Files.writeString(work.resolve("web/runs.json"), "[]");
        Output odd = verbale("publish", "--to", "web");
        assertThat(odd.code()).isEqualTo(4);
        assertThat(odd.err()).contains("runs.json is no list of runs of a site");
    }

    @Test
    void failures_stand_at_their_lines_where_the_sources_are_at_hand() throws Exception {
        Path source = work.resolve("src/sample/BedTest.java");
        Files.createDirectories(source.getParent());
        Files.writeString(source, "line\n".repeat(9));

        String lines =
                verbale("export", "--format", "annotations", "--sources", "src").out();
        assertThat(lines.lines())
                .singleElement()
                .asString()
                .matches("src/sample/BedTest\\.java:7: .*the rose grows: .*no rose");
        Output quality = verbale("export", "--format", "code-quality", "--sources", "src");
        assertThat(quality.out())
                .contains("\"path\":\"src/sample/BedTest.java\",\"lines\":{\"begin\":7")
                .startsWith("[{\"description\":");
        Files.delete(source);
        assertThat(verbale("export", "--format", "annotations").out())
                .contains("the rose grows")
                .doesNotContain(".java");
        Output none = verbale("export", "--format", "code-quality");
        assertThat(none.out().strip()).isEqualTo("[]");
        assertThat(none.err()).contains("of 1 failure no line is known");
    }

    @Test
    void a_message_is_sent_once_and_a_server_that_is_away_is_named() throws Exception {
        var got = new java.util.concurrent.atomic.AtomicInteger();
        var server = com.sun.net.httpserver.HttpServer.create(new java.net.InetSocketAddress("127.0.0.1", 0), 0);
        server.createContext("/", exchange -> {
            exchange.getRequestBody().readAllBytes();
            got.incrementAndGet();
            exchange.sendResponseHeaders(204, -1);
            exchange.close();
        });
        server.start();
        try {
            String url = "http://127.0.0.1:" + server.getAddress().getPort() + "/{CHAT_TOKEN}";
            Output first = verbale("notify", "--url", url, "--template", "text");
            Output second = verbale("notify", "--url", url, "--template", "text");
            assertThat(first.code()).as(first.err()).isZero();
            assertThat(first.out()).contains("/{CHAT_TOKEN}: ", "1 of 2 tests did not pass");
            assertThat(second.out()).contains("This run was sent there already.");
            assertThat(verbale("notify", "--url", url, "--template", "text", "--when", "fixed")
                            .out())
                    .contains("Nothing is sent: ");
            assertThat(got).hasValue(1);
        } finally {
            server.stop(0);
        }
        assertThat(verbale("notify", "--url", "https://x.example/{NOT_SET}").err())
                .contains("NOT_SET is not set");
        assertThat(verbale("notify", "--url", "https://x.example", "--when", "sometimes")
                        .err())
                .contains("none of new-failures, fixed, always");
        Output away = verbale(
                "mail", "--to", "ada@orto.example", "--from", "ci@orto.example", "--server", "smtp://127.0.0.1:1");
        assertThat(away.code()).isEqualTo(4);
        assertThat(away.err())
                .contains("smtp://127.0.0.1:1 did not take the mail")
                .doesNotContain("\tat ");
        assertThat(verbale("mail", "--to", "ada", "--from", "ci@orto.example", "--server", "smtp://x")
                        .err())
                .contains("'ada' is no address of a mail");
        assertThat(verbale("mail", "--to", "ada@orto.example", "--from", "ci@orto.example")
                        .code())
                .isEqualTo(2);
    }

    @Test
    void a_sealed_run_is_verified_and_whatever_was_changed_is_named() throws Exception {
        assertThat(verbale("verify").code()).isEqualTo(6);
        assertThat(verbale("verify").out()).contains("has no seal. It is sealed by: verbale seal");
        Path key = work.resolve("key");
        assertThat(new ProcessBuilder("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", key.toString())
                        .start()
                        .waitFor())
                .isZero();
        Files.writeString(work.resolve("signers"), "ci@orto.example " + Files.readString(Path.of(key + ".pub")));

        assertThat(verbale("seal", "--key", "key").out())
                .matches("(?s)Sealed: \\d+ files of " + RUN + ", signed with key\\R");
        Output good = verbale("verify", "--allowed-signers", "signers");
        assertThat(good.code()).as(good.out()).isZero();
        assertThat(good.out()).contains(RUN + " is as it was sealed", "by ci@orto.example.");
        verbale("pack", "--to", "sealed.zip", "--overwrite");
        assertThat(verbale("verify", "sealed.zip", "--allowed-signers", "signers")
                        .code())
                .isZero();

        Path journal = work.resolve("target/verbale/" + RUN + "/journals/worker-1.jsonl");
        String before = Files.readString(journal);
        Files.writeString(journal, before.replace("\"outcome\":\"failed\"", "\"outcome\":\"passed\""));
        Output changed = verbale("verify");
        Files.writeString(journal, before);
        assertThat(changed.code()).isEqualTo(6);
        assertThat(changed.out())
                .contains(RUN + " is not as it was sealed.", "  changed: journals/worker-1.jsonl", "SHA256:");
        assertThat(verbale("verify").code()).isZero();

        assertThat(verbale("seal", "sealed.zip").code()).isEqualTo(4);
        assertThat(verbale("verify", "--allowed-signers", "none").code()).isEqualTo(2);
        assertThat(verbale("seal", "--key", "none").err()).contains("there is no key that can be read in none");
    }
}
