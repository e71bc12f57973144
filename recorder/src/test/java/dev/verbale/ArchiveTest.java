package dev.verbale;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.results.Entry;
import dev.verbale.results.Entry.AttachmentEntry;
import dev.verbale.results.Run;
import dev.verbale.results.RunReader;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.GZIPOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** HTTP archives of somebody else that are attached: nothing secret of them is kept, and nothing is lost in silence. */
class ArchiveTest {

    private static final String SECRET = "hunter2-of-Ada";
    private static final MediaType TYPE = MediaType.of("application/har+json");
    private static final String PARTS = "--beds\r\nContent-Disposition: form-data; name=\"password\"\r\n\r\n" + SECRET
            + "\r\n--beds\r\nContent-Disposition: form-data; name=\"plan\"; filename=\"plan.json\"\r\n"
            + "Content-Type: application/json\r\n\r\n{\"token\":\"" + SECRET + "\",\"crop\":\"Kale\"}\r\n--beds--\r\n";

    @TempDir
    Path root;

    private AdapterRecorder recorder;
    private Scope test;

    @BeforeEach
    void begin_a_test() {
        recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        test = recorder.startTest(
                recorder.run(),
                TestDescriptor.of("key", "name")
                        .className("sample.Api")
                        .methodName("asks")
                        .build());
    }

    static Stream<String> hidden() {
        String json = "{\"password\":\"" + SECRET + "\",\"crop\":\"Kale\"}";
        String form = "crop=Kale&password=" + SECRET;
        return Stream.of(
                "\"request\":{\"headers\":[{\"value\":\"Bearer " + SECRET + "\",\"name\":\"Authorization\"}]}",
                "\"request\":{\"cookies\":[{\"name\":\"bed\",\"value\":\"" + SECRET + "\"}]}",
                "\"request\":{\"url\":\"https://orto.example/?token=" + SECRET + "&crop=Kale\"}",
                "\"request\":{\"headers\":[{\"name\":\":path\",\"value\":\"/?token=" + SECRET + "\"}]}",
                "\"request\":{\"queryString\":[{\"name\":\"token\",\"value\":\"" + SECRET + "\"}]}",
                body("postData", "application/json", json, ""),
                body("content", "application/json", json, ""),
                body("postData", "application/x-www-form-urlencoded", form, ""),
                body("postData", "multipart/form-data; boundary=beds", PARTS, ""),
                body("postData", "multipart/form-data", PARTS, ""),
                body("postData", "multipart/form-data; boundary=beds", PARTS.replace("\r\n", "\n"), ""),
                body("content", "multipart/form-data; boundary=beds", base64(PARTS.getBytes(UTF_8)), "base64"),
                body("content", "application/json", base64(json.getBytes(UTF_8)), "base64"),
                body("content", "", base64(json.getBytes(UTF_8)), "BASE64"),
                body("postData", "application/json", base64(json.getBytes(UTF_8)), "base64"),
                body("content", "application/json", base64(gzip(json)), "base64"),
                body(
                        "content",
                        "application/json; charset=iso-8859-1",
                        base64(("Ü" + json).getBytes(ISO_8859_1)),
                        "base64"),
                "\"request\":{\"postData\":{\"params\":[{\"name\":\"password\",\"value\":\"" + SECRET
                        + "\"}],\"text\":\"password=" + SECRET + "\"}}",
                "\"request\":{\"postData\":{\"_extra\":{\"headers\":[{\"name\":\"X-Api-Key\",\"value\":\"" + SECRET
                        + "\"}]}}}",
                "\"_password\":\"" + SECRET + "\"");
    }

    private static String body(String field, String type, String text, String encoding) {
        String quoted = text.replace("\\", "\\\\")
                .replace("\"", "\\\"")
                .replace("\r", "\\r")
                .replace("\n", "\\n");
        String side = field.equals("content") ? "response" : "request";
        // the text first, the rest behind it, and something else in between
        return "\"" + side + "\":{\"" + field + "\":{\"text\":\"" + quoted + "\",\"size\":7,\"mimeType\":\"" + type
                + "\"" + (encoding.isEmpty() ? "" : ",\"encoding\":\"" + encoding + "\"") + "}}";
    }

    private static String base64(byte[] bytes) {
        return Base64.getEncoder().encodeToString(bytes);
    }

    private static byte[] gzip(String text) {
        var packed = new ByteArrayOutputStream();
        try (var gzip = new GZIPOutputStream(packed)) {
            gzip.write(text.getBytes(UTF_8));
        } catch (IOException never) {
            throw new AssertionError(never);
        }
        return packed.toByteArray();
    }

    @ParameterizedTest
    @MethodSource("hidden")
    void wherever_a_secret_hides_in_there_it_is_masked(String entry) throws Exception {
        recorder.attach("seen.har", archive(entry), TYPE);

        String kept = Files.readString(attach().file());
        assertThat(inside(kept)).doesNotContain(SECRET);
        if (entry.contains("Kale")) assertThat(inside(kept)).contains("Kale");
        assertThat(kept).startsWith("{\"log\":").endsWith("}}");
    }

    /** Every text in it, base64 undone. */
    private static String inside(String kept) {
        var all = new StringBuilder(kept);
        var quoted =
                java.util.regex.Pattern.compile("\"([A-Za-z0-9+/=]{16,})\"").matcher(kept);
        while (quoted.find())
            all.append('\n').append(new String(Base64.getDecoder().decode(quoted.group(1)), ISO_8859_1));
        return all.toString();
    }

    private static byte[] archive(String entry) {
        return ("{\"log\":{\"version\":\"1.2\",\"entries\":[{" + entry + "}]}}").getBytes(UTF_8);
    }

    @Test
    void what_holds_no_secret_stays_as_it_is() throws Exception {
        String image = base64(new byte[] {(byte) 0x89, 'P', 'N', 'G', 0, 1, 2, 3});
        byte[] archive = archive(body("content", "image/png", image, "base64"));
        recorder.attach("seen.har", archive, TYPE);

        assertThat(Files.readString(attach().file()))
                .contains("\"text\":\"" + image + "\"", "\"size\":7", "\"mimeType\":\"image/png\"");
    }

    @Test
    void what_is_no_archive_is_kept_as_far_as_it_can_be_and_said() throws Exception {
        recorder.attach("page.har", ("<p>sign in: password=" + SECRET + "</p>").getBytes(UTF_8), TYPE);
        recorder.attach("half.har", ("{\"log\":{\"version\":\"1.2\", beds password=" + SECRET).getBytes(UTF_8), TYPE);

        Run run = read();
        List<AttachmentEntry> attachments = attachments(run);
        assertThat(Files.readString(attachments.get(0).file())).isEqualTo("<p>sign in: password=[masked]</p>");
        assertThat(Files.readString(attachments.get(1).file()))
                .startsWith("{\"log\":{\"version\":\"1.2\"")
                .doesNotContain(SECRET);
        assertThat(run.problems().toString())
                .contains("'page.har' is no JSON", "'half.har' is no whole JSON", "line 1, column");
    }

    @Test
    void a_large_one_is_masked_on_a_thread_of_its_own_and_one_that_is_too_large_is_refused() throws Exception {
        String entry = "{" + body("postData", "application/json", "{\"password\":\"" + SECRET + "\"}", "") + "}";
        byte[] large = ("{\"log\":{\"entries\":[" + (entry + ",").repeat(20_000) + entry + "]}}").getBytes(UTF_8);
        Path file = Files.write(root.resolve("from disk.har"), large);
        recorder.attach("seen.har", large, TYPE);
        recorder.attach(file);
        recorder.attach("too large.har", new byte[100_000_001], TYPE);
        Files.delete(file); // the test goes on

        Instant patience = Instant.now().plus(Duration.ofSeconds(60));
        while (attachments(read()).size() < 2 && Instant.now().isBefore(patience)) Thread.onSpinWait();
        Run run = read();
        assertThat(attachments(run)).hasSize(2).allSatisfy(attachment -> {
            assertThat(attachment.stored().size()).isGreaterThan(1_000_000);
            assertThat(Files.readString(attachment.file()))
                    .doesNotContain(SECRET)
                    .endsWith("]}}");
        });
        assertThat(run.problems().toString()).contains("'too large.har' is an archive of 100 MB");
    }

    /** What a JVM does at its very end: attaches a large archive and asks something that is never answered. */
    static final class Last {
        public static void main(String[] arguments) {
            String entry = "{" + body("postData", "application/json", "{\"password\":\"" + SECRET + "\"}", "") + "},";
            Verbale.attach(
                    "last.har", ("{\"log\":{\"entries\":[" + entry.repeat(60_000) + "{}]}}").getBytes(UTF_8), TYPE);
            Verbale.exchange("GET", "https://orto.example/never");
        }
    }

    @Test
    void the_end_of_a_jvm_waits_for_it_and_writes_what_is_still_open() throws Exception {
        Path end = root.resolve("end");
        Process jvm = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "-cp",
                        System.getProperty("java.class.path"),
                        "-Dverbale.root=" + end,
                        Last.class.getName())
                .redirectErrorStream(true)
                .start();
        jvm.getInputStream().readAllBytes();
        assertThat(jvm.waitFor()).isZero();

        Run run = RunReader.read(end);
        assertThat(run.entries())
                .filteredOn(AttachmentEntry.class::isInstance)
                .singleElement()
                .satisfies(one -> assertThat(Files.readString(((AttachmentEntry) one).file()))
                        .endsWith("{}]}}")
                        .doesNotContain(SECRET));
        assertThat(Entry.ExchangeEntry.in(run.entries()))
                .singleElement()
                .satisfies(one -> assertThat(one.made().attributes())
                        .containsEntry("ended", "by the end of the run, without a response"));
    }

    private AttachmentEntry attach() throws IOException {
        return attachments(read()).get(0);
    }

    private static List<AttachmentEntry> attachments(Run run) {
        return run.tests().get(0).entries().stream()
                .filter(AttachmentEntry.class::isInstance)
                .map(AttachmentEntry.class::cast)
                .toList();
    }

    private Run read() throws IOException {
        recorder.endTest(test, TestEnd.passed());
        return RunReader.read(recorder.folder());
    }
}
