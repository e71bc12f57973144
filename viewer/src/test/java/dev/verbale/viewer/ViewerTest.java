package dev.verbale.viewer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.verbale.MediaType;
import dev.verbale.RecorderOptions;
import dev.verbale.Scope;
import dev.verbale.report.PageOptions;
import dev.verbale.results.SampleRun;
import dev.verbale.spi.AdapterRecorder;
import dev.verbale.spi.TestDescriptor;
import dev.verbale.spi.TestEnd;
import dev.verbale.vocabulary.Outcome;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What the viewer gives to whom, over real sockets. */
@Timeout(60)
class ViewerTest {

    private static final String TOKEN = "a-token-of-a-team";

    @TempDir
    Path root;

    private final HttpClient client =
            HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(20)).build();
    private Viewer viewer;

    @BeforeEach
    void start() throws Exception {
        viewer = Viewer.start(options("127.0.0.1", null));
    }

    @AfterEach
    void stop() {
        viewer.close();
    }

    private ViewerOptions options(String address, String token) throws IOException {
        return new ViewerOptions(
                root, new InetSocketAddress(InetAddress.getByName(address), 0), token, run -> PageOptions.PLAIN);
    }

    private HttpResponse<String> get(String path, String... headers) throws Exception {
        return client.send(request(path, headers).build(), BodyHandlers.ofString());
    }

    private HttpRequest.Builder request(String path, String... headers) {
        HttpRequest.Builder request = HttpRequest.newBuilder(viewer.address().resolve(path));
        if (headers.length > 0) request.headers(headers);
        return request;
    }

    /** As no client would send it. */
    private String raw(String head) throws IOException {
        try (var socket = new Socket("127.0.0.1", viewer.address().getPort())) {
            socket.setSoTimeout(20_000);
            socket.getOutputStream().write((head + "Connection: close\r\n\r\n").getBytes(StandardCharsets.ISO_8859_1));
            return new String(socket.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    /** Until the line is read: runs are read one after the other, behind the list. */
    private String listWith(String text) throws Exception {
        String list = get("/").body();
        if (list.contains(text)) return list;
        HttpResponse<Stream<String>> events = client.send(request("/events").build(), BodyHandlers.ofLines());
        List<String> seen = Collections.synchronizedList(new ArrayList<>());
        try (Stream<String> lines = events.body()) {
            CompletableFuture.supplyAsync(() -> lines.peek(seen::add)
                            .filter(line -> line.contains(text))
                            .findFirst())
                    .orTimeout(20, TimeUnit.SECONDS)
                    .exceptionally(late -> {
                        throw new AssertionError("no '" + text + "' in " + seen, late);
                    })
                    .join();
        }
        return get("/").body();
    }

    @Test
    void it_lists_runs_the_newest_first_with_how_they_went() throws Exception {
        SampleRun good = SampleRun.in(root, "2026-11-24_100000_aaaa");
        good.test("swaps", Outcome.PASSED, null).read();
        SampleRun bad = SampleRun.in(root, "2026-11-25_100000_bbbb");
        bad.test("swaps", Outcome.PASSED, null);
        bad.test("lends", Outcome.FAILED, SampleRun.failure("E", "no seeds")).read();
        Files.createDirectories(root.resolve("somebody's notes"));

        String list = listWith("1 needs attention");

        assertThat(list.indexOf("2026-11-25_100000_bbbb"))
                .isPositive()
                .isLessThan(list.indexOf("2026-11-24_100000_aaaa"));
        assertThat(list)
                .contains("<b class=\"failed\">1 needs attention</b>, 2 tests")
                .doesNotContain("somebody's notes");
        assertThat(listWith("all good, 1 test")).contains("<rect class=\"passed\"");
    }

    @Test
    void a_run_that_cannot_be_read_is_named_and_the_others_are_shown() throws Exception {
        Files.writeString(Files.createDirectories(root.resolve("broken<b>")).resolve("run.json"), "{");
        SampleRun.in(root, "whole").test("swaps", Outcome.PASSED, null);

        assertThat(listWith("2 problems"))
                .contains("broken&lt;b&gt;", "<b class=\"failed\">no test was recorded</b>")
                .doesNotContain("broken<b>", "all good");
        assertThat(listWith("1 test")).contains("whole");
        assertThat(get("/runs/broken%3Cb%3E/").statusCode()).isEqualTo(200);
    }

    @Test
    void each_run_opens_as_its_page_and_nothing_of_it_is_active() throws Exception {
        AdapterRecorder recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("sample.T.swaps()", "swaps").build());
        recorder.attach(
                "page", "<script>alert(1)</script>".getBytes(StandardCharsets.UTF_8), MediaType.of("text/html"));
        recorder.attach(
                "image", "<svg onload=alert(1)>".getBytes(StandardCharsets.UTF_8), MediaType.of("image/svg+xml"));
        recorder.endTest(test, TestEnd.passed());
        String name = recorder.folder().getFileName().toString();

        HttpResponse<String> page = get("/runs/" + name + "/");

        assertThat(page.statusCode()).isEqualTo(200);
        assertThat(page.headers().firstValue("Content-Type")).hasValue("text/html; charset=utf-8");
        assertThat(page.headers().firstValue("X-Content-Type-Options")).hasValue("nosniff");
        assertThat(get("/runs/" + name + "/data/run.js").body()).startsWith("verbale.run(");
        assertThat(get("/runs/" + name).headers().firstValue("Location")).hasValue(name + "/");
        for (String file : files(name)) {
            HttpResponse<String> attachment = get("/runs/" + name + "/" + file);
            assertThat(attachment.statusCode()).as(file).isEqualTo(200);
            assertThat(attachment.headers().firstValue("Content-Type")).hasValue("text/plain; charset=utf-8");
            assertThat(attachment.headers().firstValue("Content-Security-Policy"))
                    .get()
                    .asString()
                    .startsWith("sandbox;");
        }
        assertThat(Files.list(recorder.folder()).map(one -> one.getFileName().toString()))
                .as("nothing is written into the run")
                .doesNotContain("page");
    }

    /** The attachments that the test's data names. */
    private List<String> files(String name) throws Exception {
        String data = get("/runs/" + name + "/data/tests/0.js").body();
        List<String> files = Pattern.compile("\"href\":\"([^\"]+)\"")
                .matcher(data)
                .results()
                .map(match -> match.group(1))
                .toList();
        assertThat(files).hasSize(2);
        return files;
    }

    @ParameterizedTest
    @CsvSource(
            nullValues = "-",
            value = {
                "bytes=0-9    | 206 | 0 | 9",
                "bytes=990-   | 206 | 990 | 999",
                "bytes=-100   | 206 | 900 | 999",
                "bytes=-5000  | 206 | 0 | 999",
                "bytes=995-2000 | 206 | 995 | 999",
                "bytes=1000-  | 416 | - | -",
                "bytes=-0     | 416 | - | -",
                "bytes=9-5    | 200 | 0 | 999",
                "bytes=0-1,5-6 | 200 | 0 | 999",
                "bytes=-      | 200 | 0 | 999",
                "lines=0-9    | 200 | 0 | 999",
                "bytes=99999999999999999999-    | 200 | 0 | 999"
            },
            delimiter = '|')
    void parts_of_a_video_are_sent_as_a_player_asks(String range, int status, Integer from, Integer to)
            throws Exception {
        AdapterRecorder recorder =
                AdapterRecorder.open(RecorderOptions.defaults().withRoot(root).withSummaryLine(false));
        Scope test = recorder.startTest(
                recorder.run(), TestDescriptor.of("sample.T.swaps()", "swaps").build());
        byte[] video = new byte[1_000];
        for (int i = 0; i < video.length; i++) video[i] = (byte) (i * 7);
        recorder.attach("video", video, MediaType.of("video/webm"));
        recorder.endTest(test, TestEnd.passed());
        String name = recorder.folder().getFileName().toString();
        get("/runs/" + name + "/");
        String data = get("/runs/" + name + "/data/tests/0.js").body();
        String file = data.replaceAll("(?s).*\"href\":\"([^\"]+)\".*", "$1");

        HttpResponse<byte[]> part = client.send(
                request("/runs/" + name + "/" + file, "Range", range).build(), BodyHandlers.ofByteArray());

        assertThat(part.statusCode()).isEqualTo(status);
        if (from == null) assertThat(part.headers().firstValue("Content-Range")).hasValue("bytes */1000");
        else assertThat(part.body()).isEqualTo(Arrays.copyOfRange(video, from, to + 1));
        HttpResponse<byte[]> head = client.send(
                request("/runs/" + name + "/" + file)
                        .method("HEAD", HttpRequest.BodyPublishers.noBody())
                        .build(),
                BodyHandlers.ofByteArray());
        assertThat(head.headers().firstValue("Content-Length")).hasValue("1000");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "/runs/../secret.txt",
                "/runs/run/../../secret.txt",
                "/runs/run/%2e%2e/%2e%2e/secret.txt",
                "/runs/%2e%2e/secret.txt",
                "/runs/run/..%2f..%2fsecret.txt",
                "/runs/run/..%5c..%5csecret.txt",
                "/runs/run//etc/passwd",
                "/runs/run/data/%00",
                "/runs/run/data",
                "/runs/run/attachments/",
                "/runs/run/link.txt",
                "/runs/link/",
                "/secret.txt",
                "//secret.txt",
                "/runs/",
                "/runs/run/data/run.js/"
            })
    void no_path_leads_out_of_a_page(String path) throws Exception {
        SampleRun.in(root, "run").test("swaps", Outcome.PASSED, null);
        Files.writeString(root.resolve("secret.txt"), "t0ps3cret");
        Files.createSymbolicLink(root.resolve("run/link.txt"), root.resolve("secret.txt"));
        get("/runs/run/");

        String answer = raw("GET " + path + " HTTP/1.1\r\nHost: localhost:"
                + viewer.address().getPort() + "\r\n");

        assertThat(answer).doesNotContain("t0ps3cret", "root:");
        assertThat(answer).matches("(?s)HTTP/1.1 (404|400|301).*");
    }

    @Test
    void a_site_that_leads_its_own_name_here_reads_nothing() throws Exception {
        int port = viewer.address().getPort();
        for (String host : new String[] {
            "Host: evil.example:" + port,
            "Host: evil.example",
            "Host: localhost",
            "Host: localhost:1",
            "Host: localhost:" + port + "\r\nHost: evil.example",
            "X: y",
            "Host: localhost:" + port + ".evil.example"
        })
            assertThat(raw("GET / HTTP/1.1\r\n" + host + "\r\n"))
                    .as(host)
                    .matches("(?s)HTTP/1.1 4\\d\\d.*")
                    .doesNotContain("<table");
        for (String host : new String[] {"localhost", "127.0.0.1", "[::1]", "LOCALHOST"})
            assertThat(raw("GET / HTTP/1.1\r\nHost: " + host + ":" + port + "\r\n"))
                    .as(host)
                    .startsWith("HTTP/1.1 200");
    }

    @Test
    void it_changes_nothing_for_anybody() throws Exception {
        for (String method : new String[] {"POST", "PUT", "DELETE", "OPTIONS", "PATCH", "NONSENSE"}) {
            HttpResponse<String> answer = client.send(
                    request("/")
                            .method(method, HttpRequest.BodyPublishers.ofString("x".repeat(100_000)))
                            .build(),
                    BodyHandlers.ofString());
            assertThat(answer.statusCode()).as(method).isEqualTo(405);
            assertThat(answer.headers().firstValue("Allow")).hasValue("GET, HEAD");
        }
    }

    @Test
    void with_a_token_nobody_looks_in_who_does_not_say_it() throws Exception {
        viewer.close();
        SampleRun.in(root, "run").test("swaps", Outcome.PASSED, null);
        viewer = Viewer.start(options("0.0.0.0", TOKEN));
        URI address = viewer.address();
        URI plain = URI.create("http://localhost:" + address.getPort() + "/");

        assertThat(address).hasQuery("token=" + TOKEN);
        for (String path : new String[] {
            "", "events", "runs/run/", "runs/run/data/run.js", "?token=", "?token=wrong", "?token=" + TOKEN + "x"
        })
            assertThat(client.send(HttpRequest.newBuilder(plain.resolve(path)).build(), BodyHandlers.ofString())
                            .statusCode())
                    .as(path)
                    .isEqualTo(401);
        HttpResponse<String> first = client.send(HttpRequest.newBuilder(address).build(), BodyHandlers.ofString());
        assertThat(first.statusCode()).isEqualTo(303);
        assertThat(first.headers().firstValue("Location")).hasValue("/");
        String cookie = first.headers().firstValue("Set-Cookie").orElseThrow();
        assertThat(cookie).contains("HttpOnly", "SameSite=Strict");
        for (String[] header : new String[][] {
            {"Cookie", "other=1; " + cookie.replaceAll(";.*", "")}, {"Authorization", "Bearer " + TOKEN}
        })
            assertThat(client.send(HttpRequest.newBuilder(plain).headers(header).build(), BodyHandlers.ofString())
                            .statusCode())
                    .isEqualTo(200);
        assertThatThrownBy(() -> options("0.0.0.0", null)).hasMessageContaining("give a token");
        assertThatThrownBy(() -> options("127.0.0.1", "short")).hasMessageContaining("12 characters");
    }

    @Test
    void a_run_that_goes_is_told_of_as_it_goes() throws Exception {
        HttpResponse<InputStream> list = client.send(request("/events").build(), BodyHandlers.ofInputStream());
        try (var news = new BufferedReader(new InputStreamReader(list.body(), StandardCharsets.UTF_8))) {
            AdapterRecorder recorder = AdapterRecorder.open(RecorderOptions.defaults()
                    .withRoot(root)
                    .withSummaryLine(false)
                    .withSettings(Map.of()));
            test(recorder, "first", TestEnd.passed());
            String name = recorder.folder().getFileName().toString();
            assertThat(until(news, "1 test")).contains("going").contains(name);

            HttpResponse<InputStream> one =
                    client.send(request("/runs/" + name + "/events").build(), BodyHandlers.ofInputStream());
            try (var changes = new BufferedReader(new InputStreamReader(one.body(), StandardCharsets.UTF_8))) {
                until(changes, "data: ");
                assertThat(get("/runs/" + name + "/data/run.js").body()).contains("\"tests\":1", "\"progress\":");
                test(recorder, "second", TestEnd.threw(new AssertionError("no seeds")));
                until(changes, "data: ");
                until(news, "of them not good");
                assertThat(get("/runs/" + name + "/data/run.js").body()).contains("\"tests\":2");
            }
        }
    }

    private static void test(AdapterRecorder recorder, String name, TestEnd end) {
        recorder.endTest(
                recorder.startTest(recorder.run(), TestDescriptor.of(name, name).build()), end);
    }

    private static String until(BufferedReader lines, String text) throws IOException {
        for (String line = lines.readLine(); line != null; line = lines.readLine())
            if (line.contains(text)) return line;
        throw new AssertionError("the stream ended before '" + text + "'");
    }

    @Test
    void it_ends_with_its_streams_and_its_pages_and_two_do_not_meet() throws Exception {
        SampleRun.in(root, "run").test("swaps", Outcome.PASSED, null);
        HttpResponse<InputStream> stream = client.send(request("/events").build(), BodyHandlers.ofInputStream());
        try (Viewer other = Viewer.start(options("127.0.0.1", null))) {
            assertThat(other.address()).isNotEqualTo(viewer.address());
            get("/runs/run/");
            assertThat(made()).isNotEmpty();

            viewer.close();

            assertThat(lasts(stream.body())).isFalse();
            assertThat(client.send(
                                    HttpRequest.newBuilder(other.address().resolve("/runs/run/"))
                                            .build(),
                                    BodyHandlers.ofString())
                            .statusCode())
                    .isEqualTo(200);
        }
        assertThat(made()).isEmpty();
        assertThatThrownBy(() -> get("/")).isInstanceOf(IOException.class);
    }

    /** Reads it to its end, or until it is cut. */
    private static boolean lasts(InputStream stream) {
        try {
            return stream.readAllBytes() == null;
        } catch (IOException cut) {
            return false;
        }
    }

    /** Folders of pages of this test's runs that lie about. */
    private List<Path> made() throws IOException {
        try (Stream<Path> all = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            return all.filter(one -> one.getFileName().toString().startsWith("verbale-viewer"))
                    .filter(one -> Files.exists(one.resolve("run/data")))
                    .toList();
        }
    }
}
